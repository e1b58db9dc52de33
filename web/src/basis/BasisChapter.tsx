import type { RequirementId } from '@caderno/core/artefacts';
import { EMPTY_REQUIREMENT, OUTLINE_DIRECTIONS, moveTowards, orderOutline, type OutlineMove } from '@caderno/core/basis';
import { requirementIdSchema, type RequirementSummary } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCoverage, useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { ExportMenu } from '../files/index.ts';
import { Spread, address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { Button, Empty, countOf, useSelection } from '../look/index.ts';
import { Outline, useMovable } from '../outline/index.ts';
import { OutlineSelection } from './OutlineSelection.tsx';
import { RequirementPage } from './RequirementPage.tsx';
import { TrackerNews } from './TrackerNews.tsx';
import { useWordingCounts } from './wording/useWording.ts';

const DIRECTION_KEY = { up: '↑', down: '↓', in: '→', out: '←' } as const;
const ARROW = { up: 'ArrowUp', down: 'ArrowDown', in: 'ArrowRight', out: 'ArrowLeft' } as const;

/** The outline of requirements at the left, the requirement that is open at the right. */
export function BasisChapter() {
  const { project, canEdit } = useFrame();
  const parsed = requirementIdSchema.safeParse(useParams().requirement);
  const current = parsed.success ? parsed.data : null;
  const { requirements, move } = useMovable(project, useSummaries(project, 'requirement').data);
  const report = useCoverage(project).data;
  const coverage = useMemo(() => new Map(report?.requirements.map((r) => [r.id, r])), [report]);
  const add = useAdd(project, requirements ?? [], current);
  const wording = useWordingCounts(project);
  const [filter, setFilter] = useState('');
  const [weakOnly, setWeakOnly] = useState(false);
  const searchable = useMemo(() => searchableOf(requirements ?? []), [requirements]);
  const shown = useMemo(() => filtered(requirements ?? [], searchable, filter, weakOnly ? wording : null), [filter, requirements, searchable, weakOnly, wording]);
  const weak = wording === null ? null : Object.values(wording).reduce((n, count) => n + count, 0);
  const ids = useMemo(() => orderOutline(shown).map((e) => e.place.id), [shown]);
  const selection = useSelection(ids);
  useOutlineCommands(shown, current, canEdit, move, add);
  return (
    <Spread
      chapter="basis"
      leftShare={44}
      leftLabel="Outline"
      rightLabel="Requirement"
      left={
        <div className="flex h-full flex-col">
          <header className="flex flex-wrap items-center gap-2 px-5 pb-2.5 pt-5">
            <h1 className="font-serif text-xl font-semibold">Basis</h1>
            {report !== undefined && (
              <span className="text-xs leading-4 text-ink2">
                {countOf(report.requirements.length, 'requirement')}
                <br />
                {report.unanalysed.length} not analysed yet
              </span>
            )}
            <span className="ml-auto" />
            <ExportMenu project={project} />
            {canEdit && (
              <>
                <Link to={address.importing(project)} className="inline-flex h-8 items-center rounded-[6px] border border-rule2 bg-page px-3 text-sm font-semibold hover:bg-page2">
                  Import
                </Link>
                <Button onClick={() => void add()}>New</Button>
              </>
            )}
          </header>
          <TrackerNews />
          <div className="flex items-center gap-3 px-5 pb-2.5">
            <input aria-label="Filter the outline by words of a title or an id" placeholder="Words of a title, or an id" value={filter} onChange={(e) => setFilter(e.target.value)} className="field-boxed min-w-0 flex-1 bg-page2" />
            {weak !== null && weak > 0 && (
              <label className="flex shrink-0 items-center gap-1.5 text-xs text-ink2">
                <input type="checkbox" checked={weakOnly} onChange={(e) => setWeakOnly(e.target.checked)} />
                {countOf(weak, 'weak word')}
              </label>
            )}
          </div>
          {requirements !== undefined && requirements.length === 0 ? (
            <Empty title="The basis is empty" action={canEdit && <Button look="accent" onClick={() => void add()}>Write the first requirement</Button>}>
              Here stand the requirements of the system under test, as an outline. Everything else hangs on them.
            </Empty>
          ) : (
            <>
            {selection.chosen.length > 0 && <OutlineSelection chosen={selection.chosen} onDone={selection.clear} />}
            <Outline requirements={shown} {...(canEdit ? { selection } : {})} coverage={coverage} {...(wording === null ? {} : { wording })} current={current} addressOf={(id) => address.basis(project, id)} {...(canEdit && filter === '' && !weakOnly ? { onMove: move } : {})} />
            </>
          )}
        </div>
      }
      right={current === null ? <ChapterOverview kinds={['requirement']}>Open a requirement in the outline: its text can be read, improved, and marked for conditions.</ChapterOverview> : <RequirementPage id={current} coverage={coverage.get(current)} counted={report !== undefined} wording={wording} />}
    />
  );
}

interface Searchable {
  readonly byId: ReadonlyMap<RequirementId, RequirementSummary>;
  readonly texts: ReadonlyMap<RequirementId, string>;
}

function searchableOf(requirements: readonly RequirementSummary[]): Searchable {
  return { byId: new Map(requirements.map((r) => [r.id, r])), texts: new Map(requirements.map((r) => [r.id, `${r.id} ${r.sourceId} ${r.title} ${r.module}`.toLowerCase()])) };
}

/** What matches, with the requirements above it so that its place is seen. */
function filtered(requirements: readonly RequirementSummary[], searchable: Searchable, filter: string, weak: Readonly<Record<string, number>> | null): readonly RequirementSummary[] {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0 && weak === null) return requirements;
  const { byId, texts } = searchable;
  const kept = new Set<RequirementId>();
  for (const requirement of requirements) {
    const text = texts.get(requirement.id) ?? '';
    if (!words.every((w) => text.includes(w)) || (weak !== null && weak[requirement.id] === undefined)) continue;
    for (let at: RequirementSummary | undefined = requirement; at !== undefined; at = at.parent === null ? undefined : byId.get(at.parent)) kept.add(at.id);
  }
  return requirements.filter((r) => kept.has(r.id));
}

/** Makes a requirement after the one that is open, in the same module, and opens it. */
function useAdd(project: string, requirements: readonly RequirementSummary[], current: RequirementId | null): () => Promise<void> {
  const navigate = useNavigate();
  const create = useCreate(project);
  return useCallback(async () => {
    const beside = requirements.find((r) => r.id === current);
    const content = { ...EMPTY_REQUIREMENT, title: 'New requirement', module: beside?.module ?? '' };
    const id = await create({ kind: 'requirement', content, ...(beside === undefined ? {} : { parent: beside.parent, after: beside.id }) });
    if (id !== null) await navigate(address.artefact(project, id), { state: { made: true } });
  }, [create, current, navigate, project, requirements]);
}

function useOutlineCommands(requirements: readonly RequirementSummary[], current: RequirementId | null, canEdit: boolean, move: (id: RequirementId, move: OutlineMove) => void, add: () => Promise<void>): void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const commands = useMemo<Command[]>(() => {
    const ids = orderOutline(requirements).map((e) => e.place.id);
    const at = current === null ? -1 : ids.indexOf(current);
    const open = (index: number): void => {
      const id = ids[index];
      if (id !== undefined) void navigate(address.basis(project, id));
    };
    const walk: Command[] = [
      { id: 'next', title: 'Open the next requirement', keys: 'ArrowDown', keyLabel: '↓', run: () => open(at + 1) },
      { id: 'previous', title: 'Open the requirement before', keys: 'ArrowUp', keyLabel: '↑', run: () => open(at - 1) },
    ];
    if (!canEdit) return walk;
    const moves = OUTLINE_DIRECTIONS.map((direction): Command => ({
      id: `move-${direction}`,
      title: `Move the requirement ${direction}`,
      keys: `Alt+${ARROW[direction]}`,
      keyLabel: `Alt ${DIRECTION_KEY[direction]}`,
      changes: true,
      run: () => {
        const to = current === null ? null : moveTowards(requirements, current, direction);
        if (current !== null && to !== null) move(current, to);
      },
    }));
    return [...walk, ...moves, { id: 'new-requirement', title: 'New requirement', keys: 'n', keyLabel: 'n', changes: true, run: () => void add() }];
  }, [add, canEdit, current, move, navigate, project, requirements]);
  useCommands(commands);
}
