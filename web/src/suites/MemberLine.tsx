import type { Pin } from '@caderno/core/artefacts';
import { countsInSuite, type EntryId, type SuiteMemberFigures } from '@caderno/core/suites';
import { ListFilter, MonitorSmartphone, X } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { IconButton, StandingShape, countOf, durationOf, locale } from '../look/index.ts';
import { ChooseVersion } from '../steps/index.ts';
import { Grip, useDraggedLine } from './dragging.tsx';

interface Props {
  readonly member: SuiteMemberFigures;
  /** Null: it is not there any more. */
  readonly title: string | null;
  /** Whether what it shows and takes has been told. */
  readonly isKnown: boolean;
  readonly isAt: boolean;
  /** In which configurations it runs where it says so itself. */
  readonly where: string;
  readonly canEdit: boolean;
  readonly onPin: (id: EntryId, pinned: Pin) => void;
  readonly onRemove: (id: EntryId) => void;
  /** Null: the suite has no configurations. */
  readonly onWhere: ((id: EntryId) => void) | null;
  readonly onAt: (id: EntryId) => void;
}

const MOST_SQUARES = 5;

/** A case or scenario of a suite: what it is called, dots, what it shows, and what it takes. */
export const MemberLine = memo(function MemberLine({ member, title, isKnown, isAt, where, canEdit, onPin, onRemove, onWhere, onAt }: Props) {
  const { project } = useFrame();
  const { of, entry, pinned, facts, times } = member;
  const { setLine, look, grip } = useDraggedLine(entry, canEdit);
  const counts = countsInSuite(member);
  const notes = [...notesOf(member), ...(where !== '' ? [where] : times === 0 ? ['in no configuration'] : [])];
  const isThere = title !== null && (!isKnown || (facts !== null && facts.state !== 'withdrawn'));
  const name = title ?? of;
  return (
    <div ref={setLine} role="listitem" data-entry={entry ?? ''} onFocus={() => entry !== null && onAt(entry)} className={`group relative flex min-h-[29px] break-inside-avoid items-center gap-2 hover:bg-page2 ${look}`}>
      {entry === null ? <ByRule /> : <Grip grip={grip} name={of} />}
      <span className="w-12 shrink-0 font-mono text-xs text-ink2">{of}</span>
      <Link data-line-focus draggable={false} to={address.covering(project, of)} className={`min-w-0 py-1 leading-[1.35] hover:underline ${isThere ? (times === 0 ? 'text-ink2' : '') : 'text-ink2 line-through'}`}>
        {title ?? 'not there any more'}
      </Link>
      {notes.length > 0 && <span className={`shrink-0 text-xs ${facts !== null && facts.version < facts.head ? 'text-ochre-ink' : 'text-ink2'}`}>{notes.join(', ')}</span>}
      <span aria-hidden="true" className="min-w-4 flex-1 translate-y-[3px] border-b border-dotted border-rule2" />
      {/* Where one is they stay: the list of versions hangs on its button while the pointer is elsewhere. The wide one covers the title no longer than it is used: Tab leads to it. */}
      {canEdit && entry !== null && (
        <span className={`absolute inset-y-0 right-[10.4rem] *:flex *:items-center *:bg-page *:pl-2 group-hover:*:bg-page2 print:!hidden ${isAt ? 'flex' : 'hidden group-hover:flex'}`}>
          {isAt && (
            <span className="group-has-[[data-line-focus]:focus-visible]:opacity-0">
              <ChooseVersion pinned={pinned} version={facts?.head ?? 1} onChange={(pin) => onPin(entry, pin)} />
            </span>
          )}
          <span className="gap-1">
            {onWhere !== null && <IconButton label={`Where ${of} runs`} icon={<MonitorSmartphone size={13} aria-hidden="true" />} onClick={() => onWhere(entry)} />}
            <IconButton label={`Take ${name} out`} icon={<X size={13} aria-hidden="true" />} onClick={() => onRemove(entry)} />
          </span>
        </span>
      )}
      {counts ? <Shows member={member} /> : <span className="w-[5.2rem] shrink-0" />}
      <span className="w-[4.5rem] shrink-0 text-right font-mono text-xs" title={facts === null ? undefined : `${countOf(facts.instances, 'instance')}${times === 1 ? '' : times === 0 ? ', in no configuration: it counts nowhere' : ` in each of ${countOf(times, 'configuration')}`}`}>
        {!counts || facts === null ? '' : facts.minutes === null ? <span className="text-ink3">–</span> : durationOf(facts.minutes * facts.instances * times)}
      </span>
    </div>
  );
});

/** In the place of the grip: a rule decides about this line. */
function ByRule() {
  return (
    <span title="The rule of its part found it" className="grid w-4 shrink-0 place-items-center text-ink3">
      <ListFilter size={11} role="img" aria-label="found by the rule" />
    </span>
  );
}

/** What a line says besides: the version it means, and how often it is executed. */
function notesOf({ facts, pinned }: SuiteMemberFigures): string[] {
  if (facts === null) return [];
  const newer = facts.version < facts.head ? `, newer: v${facts.head}` : '';
  return [
    ...(facts.state === 'withdrawn' ? ['withdrawn'] : []),
    ...(pinned === null ? [] : [`${pinned === 'agreed' ? 'as agreed, ' : ''}v${facts.version}${newer}`]),
    ...(facts.instances === 1 ? [] : [`× ${facts.instances.toLocaleString(locale())}`]),
  ];
}

/** A square for each item it shows; of many the number. Pale where others of the suite show all of it. */
function Shows({ member: { shows, alone } }: { readonly member: SuiteMemberFigures }) {
  const words = shows === 0 ? 'It shows nothing' : `It shows ${countOf(shows, 'item')}, ${alone === 0 ? 'all of them shown by others of the suite too' : `${alone.toLocaleString(locale())} of them alone`}`;
  return (
    <span title={words} aria-label={words} role="img" className="flex w-[5.2rem] shrink-0 items-center justify-end gap-[1.5px]">
      {shows === 0 && <span className="text-xs text-ink3">shows nothing</span>}
      {Array.from({ length: Math.min(shows, MOST_SQUARES) }, (_, i) => (
        <span key={i} className={alone === 0 ? 'opacity-45' : ''}>
          <StandingShape standing="shown" size={9} />
        </span>
      ))}
      {shows > MOST_SQUARES && <span className="pl-1 font-mono text-[10.5px] text-ink2">+{(shows - MOST_SQUARES).toLocaleString(locale())}</span>}
    </span>
  );
}
