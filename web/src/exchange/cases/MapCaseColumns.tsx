import type { CaseLayout, CaseTarget } from '@caderno/core/caseFiles';
import { LIMITS, type CaseDraft } from '@caderno/contract';
import { useOwnFields } from '../../api/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Choose, Section, options, Tick, TextBox } from '../../look/index.ts';
import { ColumnTable } from '../ColumnTable.tsx';
import { ReadingChoices } from '../ReadingChoices.tsx';
import { caseTargetOptions } from './caseTargetWords.ts';

interface Props {
  readonly draft: CaseDraft;
  readonly onMapping: (part: Partial<CaseDraft['mapping']>) => void;
  readonly onColumn: (name: string, target: CaseTarget) => void;
  readonly onReread: (draft: CaseDraft) => void;
}

const LAYOUT_WORD: Record<CaseLayout, string> = { stepRows: 'is a step of the case above it', caseRows: 'is a case, its steps in a cell' };

/** What each column of a file with cases is, and how its rows make cases: guessed, corrected by hand, remembered. */
export function MapCaseColumns({ draft, onMapping, onColumn, onReread }: Props) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const { mapping, columns } = draft;
  return (
    <Section title="What the columns are" aside={draft.remembered ? 'matched as last time' : 'guessed from their names; correct what is wrong'} actions={<ReadingChoices draft={draft} onReread={(reading) => onReread({ ...draft, reading })} />}>
      <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-sm">
        <label className="flex items-center gap-2">
          Name of the source
          <TextBox value={mapping.source} maxLength={100} list="known-case-sources" onChange={(text) => onMapping({ source: text })} className="w-48" />
          <datalist id="known-case-sources">
            {draft.sources.map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
        </label>
        {draft.format !== 'markdown' && <Choose label="Each row" showLabel value={mapping.layout} options={options(LAYOUT_WORD)} onChange={(layout) => onMapping({ layout })} />}
        <label className="flex items-center gap-2">
          Module of those without
          <TextBox value={mapping.module} maxLength={LIMITS.name} placeholder="none" onChange={(text) => onMapping({ module: text })} className="w-40" />
        </label>
        {draft.format !== 'markdown' && (
          <Tick checked={mapping.headings} onChange={(ticked) => onMapping({ headings: ticked })}>
            rows with one text are modules
          </Tick>
        )}
      </div>
      <ColumnTable<CaseTarget> kind="case" columns={columns} targetOf={(name) => mapping.columns[name] ?? 'leave'} optionsOf={(name) => caseTargetOptions(fields, mapping.columns[name])} onTarget={onColumn} />
    </Section>
  );
}
