import { ROLES, type Agreement, type Role } from '@caderno/contract';
import { Choose, Tick } from '../look/index.ts';

interface Props {
  readonly agreement: Agreement;
  readonly canEdit: boolean;
  readonly onChange: (agreement: Agreement) => void;
}

/** Numbers of people that are offered; a project that has set another keeps it. */
const OFFERED = [1, 2, 3, 4, 5];
const ROLE_WORD: Record<Role, string> = { reader: 'anybody in the project', analyst: 'whoever may edit', lead: 'leads', administrator: 'administrators' };

/** What a review asks for before something is agreed. */
export function AgreementEditor({ agreement, canEdit, onChange }: Props) {
  const { needed, role, authors, byHand } = agreement;
  const numbers = [...new Set([...OFFERED, ...(needed === 'all' ? [] : [needed])])].toSorted((a, b) => a - b);
  const put = (part: Partial<Agreement>): void => onChange({ ...agreement, ...part });
  return (
    <div className="mt-2 space-y-2 text-sm">
      <p className="flex flex-wrap items-center gap-2">
        <Choose
          label="How many must agree"
          value={String(needed)}
          options={[...numbers.map((n) => ({ value: String(n), name: n === 1 ? 'one must agree' : `${n} must agree` })), { value: 'all', name: 'all who are asked must agree' }]}
          onChange={(value) => put({ needed: value === 'all' ? 'all' : Number(value) })}
          disabled={!canEdit}
        />
        <Choose label="Who may agree" value={role} options={ROLES.map((r) => ({ value: r, name: ROLE_WORD[r] }))} onChange={(r) => put({ role: r })} disabled={!canEdit} showLabel />
      </p>
      <Tick checked={authors} disabled={!canEdit} onChange={(ticked) => put({ authors: ticked })}>
        people may agree to what they wrote themselves
      </Tick>
      <Tick checked={byHand} disabled={!canEdit} onChange={(ticked) => put({ byHand: ticked })}>
        whoever may edit may also set something to Agreed without a review
      </Tick>
    </div>
  );
}
