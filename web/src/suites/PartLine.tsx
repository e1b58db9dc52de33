import type { EntryId, SuitePart, SuiteRule } from '@caderno/core/suites';
import { LIMITS } from '@caderno/contract';
import { ListFilter, MonitorSmartphone, X } from 'lucide-react';
import { memo } from 'react';
import { IconButton, durationOf } from '../look/index.ts';
import { Grip, useDraggedLine } from './dragging.tsx';
import { RuleLine } from './RuleLine.tsx';

interface Props {
  readonly part: SuitePart;
  /** How many its rule adds; null while that is not known. */
  readonly found: number | null;
  readonly minutes: number;
  /** In which configurations its members run; empty: in those around it. */
  readonly where: string;
  readonly canEdit: boolean;
  readonly onChange: (id: EntryId, change: (part: SuitePart) => SuitePart) => void;
  readonly onRemove: (id: EntryId) => void;
  /** Null: the suite has no configurations. */
  readonly onWhere: ((id: EntryId) => void) | null;
  readonly onAt: (id: EntryId) => void;
}

const NEW_RULE: SuiteRule = { of: 'cases', asks: '', pinned: null };

/** The heading of a part, with what its members take; below it the rule that keeps it, if one does. */
export const PartLine = memo(function PartLine({ part, found, minutes, where, canEdit, onChange, onRemove, onWhere, onAt }: Props) {
  const { id, title, depth, rule } = part;
  const { setLine, look, grip } = useDraggedLine(id, canEdit);
  const name = title === '' ? 'the part without a name' : title;
  const setRule = (next: SuiteRule | null): void => onChange(id, (p) => ({ ...p, rule: next }));
  return (
    <div ref={setLine} role="listitem" data-entry={id} onFocus={() => onAt(id)} className={`group mt-4 break-inside-avoid break-after-avoid border-b border-rule first:mt-2 ${look}`} style={{ marginLeft: (depth - 1) * 18 }}>
      <div className="flex min-h-8 items-center gap-2">
        <Grip grip={grip} name={name} />
        <input data-line-focus aria-label="Heading of the part" value={title} maxLength={LIMITS.title} readOnly={!canEdit} placeholder="Heading of the part" onChange={(e) => onChange(id, (p) => ({ ...p, title: e.target.value }))} className={`field-quiet -ml-1.5 min-w-0 flex-1 font-serif font-semibold ${depth === 1 ? 'text-base' : 'text-sm'}`} />
        {where !== '' && <span className="shrink-0 text-xs text-ink2">{where}</span>}
        {canEdit && (
          <span className="hidden shrink-0 items-center group-focus-within:flex group-hover:flex print:!hidden">
            {rule === null && <IconButton label={`Let a rule keep ${name}`} icon={<ListFilter size={13} aria-hidden="true" />} onClick={() => setRule(NEW_RULE)} />}
            {onWhere !== null && <IconButton label={`Where ${name} runs`} icon={<MonitorSmartphone size={13} aria-hidden="true" />} onClick={() => onWhere(id)} />}
            <IconButton label={rule === null ? `Take away the heading ${name}; its members stay` : `Take away the heading ${name} and its rule; members put in by hand stay`} icon={<X size={13} aria-hidden="true" />} onClick={() => onRemove(id)} />
          </span>
        )}
        <span className="w-[4.5rem] shrink-0 text-right font-mono text-xs">{minutes > 0 && durationOf(minutes)}</span>
      </div>
      {rule !== null && <RuleLine rule={rule} found={found} canEdit={canEdit} onChange={setRule} />}
    </div>
  );
});
