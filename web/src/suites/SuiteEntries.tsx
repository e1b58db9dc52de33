import { entryMoved, entryPutBefore, partSetIn, withEntryPinned, withoutEntries, type EntryId, type RunsIn, type SuiteContent, type SuiteEntry, type SuiteFigures, type SuiteMemberFigures, type SuitePart } from '@caderno/core/suites';
import { DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { useCallback, useMemo, useState, type KeyboardEvent } from 'react';
import { TextButton, locale, usePrinting } from '../look/index.ts';
import { useMemberTitle } from '../suiteMembers/index.ts';
import { useConfigurationName, whereWords } from '../configurations/index.ts';
import { useFrame } from '../frame/index.ts';
import type { EditEntries } from './AddMembers.tsx';
import { MemberLine } from './MemberLine.tsx';
import { PartLine } from './PartLine.tsx';
import { RunsInDialog } from './RunsInDialog.tsx';
import { END, EndPlace } from './dragging.tsx';

interface Props {
  readonly entries: readonly SuiteEntry[];
  /** In which the suite is executed. */
  readonly configurations: SuiteContent['configurations'];
  /** Undefined while they are not known. */
  readonly figures: SuiteFigures | undefined;
  readonly canEdit: boolean;
  readonly edit: EditEntries;
  readonly at: EntryId | null;
  readonly onAt: (id: EntryId) => void;
}

/** Lines that are drawn before somebody asks for the others: a suite may have thousands. */
const MOST_AT_ONCE = 400;

type Line = { readonly kind: 'part'; readonly part: SuitePart } | { readonly kind: 'member'; readonly key: string; readonly member: SuiteMemberFigures; readonly isKnown: boolean };

/** The lines of a suite, as a table of contents: headings, members with dots up to what they take. Dragged by their grip, or moved by Alt and the arrows. */
export function SuiteEntries({ entries, configurations, figures, canEdit, edit, at, onAt }: Props) {
  const { project } = useFrame();
  const titleOf = useMemberTitle(project);
  const printing = usePrinting();
  const [whole, setWhole] = useState(false);
  const [placing, setPlacing] = useState<EntryId | null>(null);
  const nameOf = useConfigurationName();
  const lines = useMemo(() => linesOf(entries, figures), [entries, figures]);
  const minutes = useMemo(() => minutesOfParts(lines), [lines]);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }));
  const drop = ({ active, over }: DragEndEvent): void => {
    if (over !== null) edit((now) => entryPutBefore(now, active.id as EntryId, over.id === END ? null : (over.id as EntryId)));
  };
  const onKeyDown = useLineKeys(edit, canEdit);
  const onPin = useCallback((id: EntryId, pinned: Parameters<typeof withEntryPinned>[2]) => edit((now) => withEntryPinned(now, id, pinned)), [edit]);
  const onRemove = useCallback((id: EntryId) => edit((now) => withoutEntries(now, new Set([id]))), [edit]);
  const onPart = useCallback((id: EntryId, change: (part: SuitePart) => SuitePart) => edit((now) => now.map((entry) => (entry.id === id && entry.kind === 'part' ? change(entry) : entry))), [edit]);
  const ownRunsIn = useMemo(() => new Map<EntryId | null, RunsIn>(entries.map((e) => [e.id, e.runsIn])), [entries]);
  const onWhere = configurations.length === 0 ? null : setPlacing;
  const placed = entries.find((e) => e.id === placing);
  const shown = whole || printing ? lines : lines.slice(0, MOST_AT_ONCE);
  if (lines.length === 0) return <p className="py-3 text-ink2">{canEdit ? 'Nothing is in it yet. Find cases or scenarios above, let a rule choose them, or select some in their chapter and add them to this suite.' : 'Nothing is in it yet.'}</p>;
  return (
    <DndContext sensors={sensors} onDragEnd={drop}>
      <div role="list" aria-label="Members" onKeyDown={onKeyDown}>
        {shown.map((line) =>
          line.kind === 'part' ? (
            <PartLine key={line.part.id} part={line.part} found={figures?.members.filter((m) => m.part === line.part.id && m.entry === null).length ?? null} minutes={minutes.get(line.part.id) ?? 0} where={whereWords(line.part.runsIn, configurations, nameOf)} canEdit={canEdit} onChange={onPart} onRemove={onRemove} onWhere={onWhere} onAt={onAt} />
          ) : (
            <MemberLine key={line.key} member={line.member} isKnown={line.isKnown} title={titleOf(line.member.of)} isAt={line.member.entry !== null && line.member.entry === at} where={whereWords(ownRunsIn.get(line.member.entry) ?? null, configurations, nameOf)} canEdit={canEdit} onPin={onPin} onRemove={onRemove} onWhere={onWhere} onAt={onAt} />
          ),
        )}
        {canEdit && <EndPlace />}
      </div>
      {shown.length < lines.length && <TextButton onClick={() => setWhole(true)}>{`${(lines.length - shown.length).toLocaleString(locale())} more`}</TextButton>}
      {placed !== undefined && <RunsInDialog entry={placed} name={placed.kind === 'part' ? placed.title : placed.of} entries={entries} configurations={configurations} onChange={(runsIn) => edit((now) => now.map((e) => (e.id === placed.id ? { ...e, runsIn } : e)))} onClose={() => setPlacing(null)} />}
    </DndContext>
  );
}

/** The entries with what figures know of them, and behind those of a part what its rule finds. */
function linesOf(entries: readonly SuiteEntry[], figures: SuiteFigures | undefined): Line[] {
  const known = new Map(figures?.members.flatMap((m) => (m.entry === null ? [] : [[m.entry, m] as const])));
  const lines: Line[] = [];
  let part: EntryId | null = null;
  const addFound = (): void => {
    for (const member of figures?.members ?? []) if (member.entry === null && member.part === part) lines.push({ kind: 'member', key: `${part ?? ''} ${member.of}`, member, isKnown: true });
  };
  for (const entry of entries) {
    if (entry.kind === 'part') {
      addFound();
      part = entry.id;
      lines.push({ kind: 'part', part: entry });
    } else {
      lines.push({ kind: 'member', key: entry.id, member: { facts: null, times: 1, shows: 0, alone: 0, ...known.get(entry.id), of: entry.of, pinned: entry.pinned, entry: entry.id, part, runsIn: entry.runsIn }, isKnown: known.has(entry.id) });
    }
  }
  addFound();
  return lines;
}

/** What the members of each part take, those of the parts in it too. */
function minutesOfParts(lines: readonly Line[]): ReadonlyMap<EntryId, number> {
  const sums = new Map<EntryId, number>();
  const within: SuitePart[] = [];
  for (const line of lines) {
    if (line.kind === 'part') {
      while ((within.at(-1)?.depth ?? 0) >= line.part.depth) within.pop();
      within.push(line.part);
      continue;
    }
    const { facts } = line.member;
    const minutes = facts === null || facts.state === 'withdrawn' ? 0 : line.member.times * facts.instances * (facts.minutes ?? 0);
    for (const part of within) sums.set(part.id, (sums.get(part.id) ?? 0) + minutes);
  }
  return sums;
}

/** Arrows lead from line to line, with Alt they move the line (a part with all that is in it; left and right set it out and in), Delete takes it out. */
function useLineKeys(edit: EditEntries, canEdit: boolean): (event: KeyboardEvent<HTMLElement>) => void {
  return (event) => {
    const target = event.target as HTMLElement;
    const line = target.closest<HTMLElement>('[data-entry]');
    const isText = target.matches('input, textarea');
    const vertical = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : null;
    if (line === null || event.ctrlKey || event.metaKey) return;
    const id = line.dataset.entry as EntryId;
    if (canEdit && event.altKey && vertical !== null) {
      event.preventDefault();
      edit((now) => entryMoved(now, id, vertical));
      focusAgain(id);
    } else if (canEdit && event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
      event.preventDefault();
      edit((now) => partSetIn(now, id, event.key === 'ArrowRight' ? 1 : -1));
    } else if (vertical !== null && !event.altKey && target.closest('[role="listbox"], [role="combobox"]') === null && !(isText && target.getAttribute('aria-expanded') === 'true')) {
      const all = [...(line.parentElement?.querySelectorAll<HTMLElement>('[data-line-focus]') ?? [])];
      const next = all[all.findIndex((element) => line.contains(element)) + vertical];
      if (next === undefined) return;
      event.preventDefault();
      next.focus();
    } else if (canEdit && event.key === 'Delete' && !isText && id !== '') {
      event.preventDefault();
      const all = [...(line.parentElement?.querySelectorAll<HTMLElement>('[data-line-focus]') ?? [])];
      const here = all.findIndex((element) => line.contains(element));
      const next = (all[here + 1] ?? all[here - 1])?.closest<HTMLElement>('[data-entry]')?.dataset.entry;
      edit((now) => withoutEntries(now, new Set([id])));
      if (next !== undefined) focusAgain(next as EntryId);
    }
  };
}

/** A line that was moved, or came into the place of another, has the focus. */
function focusAgain(id: EntryId): void {
  setTimeout(() => document.querySelector<HTMLElement>(`[data-entry="${id}"] [data-line-focus]`)?.focus(), 30);
}
