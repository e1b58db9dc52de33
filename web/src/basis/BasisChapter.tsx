import type { RequirementId } from '@caderno/core/artefacts';
import { EMPTY_REQUIREMENT, OUTLINE_DIRECTIONS, moveTowards, type OutlineMove } from '@caderno/core/basis';
import { requirementIdSchema, type RequirementSummary } from '@caderno/contract';
import { useCallback, useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { useCoverage, useSummaries } from '../api/index.ts';
import { Ticks, useMakeAndOpen } from '../artefacts/index.ts';
import { ExportBasis } from '../files/index.ts';
import { KeptModule, Spread, address, useCommands, useFrame, useModuleBeside, type Command } from '../frame/index.ts';
import { ChapterOverview } from '../overview/index.ts';
import { ListPage, type LineLook } from '../listing/index.ts';
import { Button, Empty, REQUIREMENT_TYPE_WORD, RISK_WORD, STATE_WORD, countOf, Tick } from '../look/index.ts';
import { Outline, useMovable } from '../outline/index.ts';
import { RateMany } from './RateMany.tsx';
import { RequirementPage } from './RequirementPage.tsx';
import { TrackerNews } from './TrackerNews.tsx';
import { useRequirementIndex } from './useRequirementIndex.ts';
import { useWordingCounts } from './wording/useWording.ts';

const DIRECTION_KEY = { up: '↑', down: '↓', in: '→', out: '←' } as const;
const ARROW = { up: 'ArrowUp', down: 'ArrowDown', in: 'ArrowRight', out: 'ArrowLeft' } as const;

/** The requirements at the left, as an outline or in a list; the requirement that is open at the right. */
export function BasisChapter() {
  const { project, canEdit } = useFrame();
  const parsed = requirementIdSchema.safeParse(useParams().requirement);
  const current = parsed.success ? parsed.data : null;
  const { requirements, move } = useMovable(project, useSummaries(project, 'requirement').data);
  const report = useCoverage(project).data;
  const coverage = useMemo(() => new Map(report?.requirements.map((r) => [r.id, r])), [report]);
  const add = useAdd(project, requirements ?? [], current);
  const wording = useWordingCounts(project);
  const [weakOnly, setWeakOnly] = useState(false);
  const { listing, outline, found, ids } = useRequirementIndex(requirements, weakOnly ? wording : null);
  const movable = canEdit && outline !== null && found === null;
  useOutlineCommands(ids, movable ? (requirements ?? []) : null, current, canEdit, move, add);
  const weak = wording === null ? 0 : Object.values(wording).reduce((n, count) => n + count, 0);
  const { group } = listing.view;
  const look = useMemo<LineLook<'requirement'>>(
    () => ({
      notes: ({ head, risk }) => [REQUIREMENT_TYPE_WORD[head.type], ...((risk === 'high' || risk === 'low') && group !== 'risk' ? [RISK_WORD[risk].toLowerCase()] : []), ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()])],
      mark: ({ head }) => (
        <span className="max-w-28 shrink-0 pt-0.5">
          <Ticks conditions={coverage.get(head.id)?.conditions ?? []} most={8} />
        </span>
      ),
    }),
    [coverage, group],
  );
  const inPlace =
    requirements?.length === 0 ? (
      <Empty title="The basis is empty" action={canEdit && <Button look="accent" onClick={() => void add()}>Write the first requirement</Button>}>
        Here stand the requirements of the system under test, as an outline. Everything else hangs on them.
      </Empty>
    ) : outline === null ? undefined : found?.size === 0 && listing.list !== undefined ? (
      <p className="border-t border-rule px-5 py-4 text-ink2">{weakOnly && listing.view.query === '' ? 'No requirement has weak words.' : 'No requirement matches the query.'}</p>
    ) : (
      <Outline requirements={outline} {...(canEdit ? { selection: listing.selection } : {})} {...(found === null ? {} : { found })} coverage={coverage} {...(wording === null ? {} : { wording })} current={current} addressOf={(id) => address.basis(project, id)} {...(movable ? { onMove: move } : {})} />
    );
  return (
    <Spread
      chapter="basis"
      leftShare={44}
      leftLabel="Outline"
      rightLabel="Requirement"
      left={
        <ListPage
          kind="requirement"
          listing={listing}
          current={current}
          heading={<Heading requirements={report?.requirements.length} unanalysed={report?.unanalysed.length} />}
          news={<TrackerNews />}
          look={look}
          {...(inPlace === undefined ? {} : { inPlace })}
          onNew={() => void add()}
          beside={
            outline !== null && weak > 0 && (
              <Tick checked={weakOnly} onChange={setWeakOnly} className="shrink-0 text-xs text-ink2">
                {countOf(weak, 'weak word')}
              </Tick>
            )
          }
          actions={(chosen, onDone) => canEdit && <RateMany chosen={chosen.map((listed) => listed.head.id)} onDone={onDone} />}
        />
      }
      right={current === null ? <ChapterOverview kinds={['requirement']}>Open a requirement in the outline: its text can be read, improved, and marked for conditions.</ChapterOverview> : (
        <KeptModule id={current}>
          <RequirementPage id={current} coverage={coverage.get(current)} counted={report !== undefined} wording={wording} />
        </KeptModule>
      )}
    />
  );
}

function Heading({ requirements, unanalysed }: { readonly requirements: number | undefined; readonly unanalysed: number | undefined }) {
  const { project, canEdit } = useFrame();
  const [exporting, setExporting] = useState(false);
  return (
    <div className="flex items-center gap-2">
      <h1 className="font-serif text-xl font-semibold">Basis</h1>
      {requirements !== undefined && (
        <span className="min-w-0 truncate text-xs leading-4 text-ink2">
          {countOf(requirements, 'requirement')}
          <br />
          {unanalysed} not analysed yet
        </span>
      )}
      <span className="ml-auto" />
      <Button onClick={() => setExporting(true)}>Export</Button>
      {exporting && <ExportBasis project={project} onClose={() => setExporting(false)} />}
      {canEdit && (
        <Link to={address.importing(project)} className="inline-flex h-8 items-center rounded-panel border border-rule2 bg-page px-3 text-sm font-semibold hover:bg-page2">
          Import
        </Link>
      )}
    </div>
  );
}

/** Makes a requirement after the one that is open, in the same module, and opens it. */
function useAdd(project: string, requirements: readonly RequirementSummary[], current: RequirementId | null): () => Promise<void> {
  const moduleBeside = useModuleBeside();
  const makeAndOpen = useMakeAndOpen(project);
  return useCallback(async () => {
    const beside = requirements.find((r) => r.id === current);
    const content = { ...EMPTY_REQUIREMENT, title: 'New requirement', module: moduleBeside(beside?.module) };
    await makeAndOpen({ kind: 'requirement', content, ...(beside === undefined ? {} : { parent: beside.parent, after: beside.id }) });
  }, [current, makeAndOpen, moduleBeside, requirements]);
}

/** `outline`: what can be moved; null: nothing, as what is seen is a part or in another order. */
function useOutlineCommands(ids: readonly RequirementId[], outline: readonly RequirementSummary[] | null, current: RequirementId | null, canEdit: boolean, move: (id: RequirementId, move: OutlineMove) => void, add: () => Promise<void>): void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const commands = useMemo<Command[]>(() => {
    const at = current === null ? -1 : ids.indexOf(current);
    const open = (index: number): void => {
      const id = ids[index];
      if (id !== undefined) void navigate({ pathname: address.basis(project, id), search: window.location.search });
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
        const to = current === null || outline === null ? null : moveTowards(outline, current, direction);
        if (current !== null && to !== null) move(current, to);
      },
    }));
    return [...walk, ...moves, { id: 'new-requirement', title: 'New requirement', keys: 'n', keyLabel: 'n', changes: true, run: () => void add() }];
  }, [add, canEdit, current, ids, move, navigate, outline, project]);
  useCommands(commands);
}
