import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { useMemo, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useReadAhead, type ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { CannotBeRead, SelectMark } from '../look/index.ts';

/** What a chapter says of the artefacts in its list. The very same as long as nothing it tells of changes: with another one all lines are drawn again. */
export interface LineLook<K extends ArtefactKind> {
  /** In small print below the title. */
  readonly notes: (listed: ListedHead<K>) => readonly string[];
  /** At the end of the line. */
  readonly mark?: (listed: ListedHead<K>) => ReactNode;
  /** Behind how many a group has. */
  readonly groupNote?: (members: readonly ListedHead<K>[]) => string;
  /** Lines of its own below it. */
  readonly below?: (listed: ListedHead<K>) => ReactNode;
  /** Puts a line into something that handles it. */
  readonly wrap?: (listed: ListedHead<K>, line: ReactNode) => ReactNode;
}

interface Props<K extends ArtefactKind> {
  readonly listed: ListedHead<K>;
  readonly isCurrent: boolean;
  /** Whether Tab leads here. */
  readonly isActive: boolean;
  readonly isSelected: boolean;
  /** Whether any line is selected: boxes are seen then. */
  readonly selecting: boolean;
  readonly onSelect: (id: ArtefactId, through: boolean) => void;
  /** Of the address: the list stays as it is when one of it is opened. */
  readonly search: string;
  readonly look: LineLook<K>;
}

/** An artefact in a list, with what its chapter puts around and below it. Drawn again only when something of its own changes. */
export function ListEntry<K extends ArtefactKind>({ listed, isCurrent, isActive, isSelected, selecting, onSelect, search, look }: Props<K>) {
  // Kept as a whole: a component that is kept (memo) would no longer know which kind it lists.
  return useMemo(() => {
    const line = (
      <>
        <Line listed={listed} isCurrent={isCurrent} isActive={isActive} isSelected={isSelected} selecting={selecting} onSelect={onSelect} search={search} look={look} />
        {look.below?.(listed)}
      </>
    );
    return look.wrap === undefined ? line : look.wrap(listed, line);
  }, [isActive, isCurrent, isSelected, listed, look, onSelect, search, selecting]);
}

/** A click opens it, Space or its box selects it. */
function Line<K extends ArtefactKind>({ listed, isCurrent, isActive, isSelected, selecting, onSelect, search, look }: Props<K>) {
  const { project } = useFrame();
  const { id, title, broken } = listed;
  const readAhead = useReadAhead(project);
  return (
    <div className={`group flex border-b border-rule ${isSelected ? 'bg-blue-wash' : ''} ${isCurrent ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : 'hover:bg-page2'}`}>
      <SelectMark name={id} selected={isSelected} shown={selecting} byPointerOnly={!isActive} onSelect={(_, through) => onSelect(id, through)} className="ml-0.5 mr-0.5 mt-2" />
      <Link draggable={false} tabIndex={isActive ? 0 : -1} to={{ pathname: address.artefact(project, id), search }} onClick={() => readAhead(id)} aria-current={isCurrent ? 'page' : undefined} className="flex min-w-0 flex-1 gap-2.5 py-2 pr-5">
        <span className="w-9 shrink-0 pt-0.5 font-mono text-xs text-ink2">{id}</span>
        <span className="min-w-0 flex-1">
          <span className={`block leading-[1.35] ${isCurrent ? 'font-semibold' : ''}`}>{title}</span>
          <span className="block truncate text-xs text-ink2">{broken ? <CannotBeRead /> : look.notes(listed).join(' · ')}</span>
        </span>
        {look.mark?.(listed)}
      </Link>
    </div>
  );
}
