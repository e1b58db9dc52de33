import type { CaseId } from '@caderno/core/artefacts';
import { EMPTY_CASE, newCover, type CaseContent } from '@caderno/core/cases';
import type { ConditionContent, ItemKey } from '@caderno/core/conditions';
import { addProposedRows, coverOf, pathSteps, untoldRows, withCover, writtenCases, type Filling, type GapFilling, type ProposedRow, type SeenCondition, type WrittenAs } from '@caderno/core/coverage';
import { LIMITS, caseIdSchema } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useSettings, useSummaries } from '../../api/index.ts';
import { PickArtefact, useMakeAndOpen, useWrite } from '../../artefacts/index.ts';
import { untoldWords } from '../../liveCoverage/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Choose, Dialog, TextButton, countOf, locale } from '../../look/index.ts';
import { newPartId } from '../newPartId.ts';
import { CaseDrafts } from './CaseDrafts.tsx';
import { useFilling, type FillingState } from './useFilling.ts';
import { WriteScenarios } from './WriteScenarios.tsx';

/** A condition with the items that cases are to be written for. */
export interface ToWrite {
  readonly condition: SeenCondition;
  readonly items: readonly ItemKey[];
}

interface Props {
  readonly toWrite: readonly ToWrite[];
  readonly onClose: () => void;
}

const HOW = [
  { value: 'fewest', name: 'as few as possible' },
  { value: 'onePerItem', name: 'one for each item' },
] as const;

const AS = [
  { value: 'case', name: 'as cases' },
  { value: 'scenario', name: 'as scenarios' },
] as const;

/** Writes the cases, or scenarios, that would show what is missing: first as a preview that can be edited, then as one command. */
export function WriteCases({ toWrite, onClose }: Props) {
  const [how, setHow] = useState<Filling>('fewest');
  const [as, setAs] = useWrittenAs();
  const [at, setAt] = useState(0);
  const [ready, setReady] = useState<readonly CaseContent[]>([]);
  const current = toWrite[at];
  if (current === undefined) return <AllWritten as={as} cases={ready} toWrite={toWrite} onClose={onClose} />;
  return (
    <ForCondition
      key={`${current.condition.id} ${how} ${as}`}
      toWrite={current}
      how={how}
      as={as}
      place={toWrite.length > 1 ? `${at + 1} of ${toWrite.length}: ` : ''}
      only={toWrite.length === 1}
      onHow={setHow}
      onAs={setAs}
      onReady={(cases) => (setReady([...ready, ...cases]), setAt(at + 1))}
      onClose={onClose}
    />
  );
}

/** Cases, unless the project writes scenarios alone. */
function useWrittenAs(): [WrittenAs, (as: WrittenAs) => void] {
  const { project } = useFrame();
  const cases = useSummaries(project, 'case').data?.length ?? 0;
  const features = useSummaries(project, 'feature').data?.length ?? 0;
  const [chosen, choose] = useState<WrittenAs | null>(null);
  return [chosen ?? (cases === 0 && features > 0 ? 'scenario' : 'case'), choose];
}

interface ForProps {
  readonly toWrite: ToWrite;
  readonly how: Filling;
  readonly as: WrittenAs;
  readonly place: string;
  readonly only: boolean;
  readonly onHow: (how: Filling) => void;
  readonly onAs: (as: WrittenAs) => void;
  readonly onReady: (cases: readonly CaseContent[]) => void;
  readonly onClose: () => void;
}

const NEW_CASES = 'new';
/** Cases that cover the condition already and are offered by themselves; any other is found by its words. */
const MOST_OFFERED = 20;

function ForCondition({ toWrite: { condition, items }, how, as, place, only, onHow, onAs, onReady, onClose }: ForProps) {
  const { project } = useFrame();
  const { content } = condition;
  const mostItems = useSettings(project).data?.settings.mostItems ?? Infinity;
  const state = useFilling({ content, items, how, mostItems });
  const cases = useSummaries(project, 'case').data ?? [];
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const module = requirements.find((r) => r.id === content.requirements[0]?.id)?.module ?? '';
  const [chosen, setTarget] = useState<string | null>(null);
  const filling = state.filling;
  const written = useMemo(() => (filling === null ? null : writtenCases(condition, filling, how, module, newPartId, as)), [as, condition, filling, how, module]);
  const [edited, setEdited] = useState<readonly CaseContent[] | null>(null);
  const drafts = edited ?? written ?? [];
  const covering = cases.filter((c) => c.covers.includes(condition.id));
  // Rows belong to the case that has rows for the condition already; a path is a case of its own.
  const target = chosen ?? (only && how === 'fewest' && (filling?.rows.length ?? 0) > 0 ? (covering[0]?.id ?? NEW_CASES) : NEW_CASES);
  const targets = [
    { value: NEW_CASES, name: drafts.length > 1 ? 'new cases' : 'a new case' },
    ...cases.filter((c) => c.id === target || covering.slice(0, MOST_OFFERED).includes(c)).map((c) => ({ value: c.id as string, name: `${c.id} ${c.title}${c.covers.includes(condition.id) ? ` (covers ${condition.id})` : ''}` })),
  ];
  const existing = caseIdSchema.safeParse(target);
  const add = useAddToCase(condition, onClose);
  return (
    <Dialog title={`${place}Write ${as === 'case' ? 'cases' : 'scenarios'} for ${condition.id} ${content.title}`} onClose={onClose} wide>
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <span className="text-ink2">{countOf(items.length, 'item')} to show,</span>
        <Choose label="How many" value={how} options={HOW} onChange={onHow} />
        <Choose label="As what it is written" value={as} options={AS} onChange={onAs} />
        {as === 'case' && only && filling !== null && filling.rows.length + filling.paths.length > 0 && (
          <span className="flex w-full flex-wrap items-center gap-2">
            <span className="text-ink2">Write into</span>
            <Choose label="Case" value={target} options={targets} onChange={setTarget} />
            <PickArtefact label="Another case to add to" placeholder="Another case: id or words" offered={cases} onPick={setTarget} className="!min-h-chip !w-64 !py-0.5 !text-xs" />
          </span>
        )}
      </div>
      <Search state={state} content={content} />
      {filling === null ? <p className="mt-4 text-ink2">Looking for what would show them …</p> : <CaseDrafts condition={condition} filling={filling} drafts={drafts} onChange={setEdited} short={as === 'scenario'} />}
      {(as === 'scenario' || !existing.success) && <StillMissing condition={condition} drafts={drafts} />}
      {as === 'scenario' && only && drafts.length > 0 && (
        <WriteScenarios
          drafts={drafts}
          requirements={content.requirements.map((r) => r.id)}
          title={content.title}
          module={module}
          detail={`Scenarios for ${condition.id} ${content.title}`}
          rows={{ condition, proposed: how === 'fewest' ? rowsOf(drafts) : [] }}
          onClose={onClose}
        />
      )}
      <div className={as === 'scenario' && only && drafts.length > 0 ? 'hidden' : 'mt-5 flex gap-2'}>
        {as === 'case' && existing.success && filling !== null ? (
          <Button look="accent" disabled={drafts.length === 0} onClick={() => void add(existing.data, filling, drafts)}>
            Add to {existing.data}
          </Button>
        ) : only ? (
          <WriteButton drafts={drafts} detail={`Cases for ${condition.id} ${content.title}`} onClose={onClose} />
        ) : (
          <Button look="accent" disabled={filling === null} onClick={() => onReady(drafts)}>
            {drafts.length === 0 ? 'Go on without' : `Take ${countOf(drafts.length, as)} and go on`}
          </Button>
        )}
        {only && <EmptyCase condition={condition} module={module} />}
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}

/** What the author has to say before what is written shows anything. */
function StillMissing({ condition, drafts }: { readonly condition: SeenCondition; readonly drafts: readonly CaseContent[] }) {
  const untold = drafts.flatMap((draft) => {
    const cover = draft.covers.find((c) => c.id === condition.id);
    return cover === undefined ? [] : untoldRows(draft, draft.rows, cover, condition.content);
  });
  const [first] = untold;
  if (first === undefined) return null;
  const rows = untold.filter((u) => u.row !== null).length;
  return (
    <p role="status" className="mt-3 rounded-field bg-ochre-wash px-3 py-1.5 text-sm text-ochre-ink">
      Still missing in {rows > 0 ? countOf(rows, 'row') : countOf(untold.length, 'case')}: {untoldWords(first.why)} Until then {untold.length === 1 ? 'it is' : 'they are'} linked, not shown.
    </p>
  );
}

/** For those who would rather write by hand: a case that covers the condition and is empty otherwise. */
function EmptyCase({ condition, module }: { readonly condition: SeenCondition; readonly module: string }) {
  const { project } = useFrame();
  const makeAndOpen = useMakeAndOpen(project);
  const begin = (): void => void makeAndOpen({ kind: 'case', content: { ...EMPTY_CASE, title: condition.content.title, module, covers: [newCover(condition.id, condition.version)] } });
  return <Button onClick={begin}>Begin with an empty case</Button>;
}

function Search({ state, content }: { readonly state: FillingState; readonly content: ConditionContent }) {
  if (content.model.kind !== 'combination' || state.filling === null) return null;
  const rows = countOf(state.filling.rows.length, 'row');
  return (
    <p role="status" className="mt-2 flex items-center gap-3 text-sm text-ink2">
      {state.smallest ? `${rows}; there cannot be fewer.` : `${rows} so far, ${state.steps.toLocaleString(locale())} steps.`}
      {!state.smallest && (state.searching ? <TextButton onClick={state.stop}>stop looking for fewer</TextButton> : <TextButton onClick={state.goOn}>look on for fewer</TextButton>)}
    </p>
  );
}

/** Adds rows to a case's data, or the steps of a single path to its end, as one command. */
function useAddToCase(condition: SeenCondition, onClose: () => void): (target: CaseId, filling: GapFilling, drafts: readonly CaseContent[]) => Promise<void> {
  const { project } = useFrame();
  const write = useWrite(project);
  return async (target, filling, drafts) => {
    const artefact = await call('readArtefact', { params: { project, id: target } }).catch(tellFailure);
    if (artefact?.kind !== 'case') return;
    const content = filling.rows.length > 0 ? addProposedRows(artefact.content, condition, rowsOf(drafts), newPartId) : withPath(artefact.content, condition, filling);
    const done = await write({ changed: [{ kind: 'case', content, id: target, version: artefact.summary.version }], detail: `Rows for ${condition.id} ${condition.content.title}` });
    if (done === null) return;
    toast.success(`${target} has it now. The journal can undo it.`);
    onClose();
  };
}

/** The rows as they stand in the preview, whatever the search has found since they were edited. */
function rowsOf(drafts: readonly CaseContent[]): ProposedRow[] {
  return drafts.flatMap((draft) => {
    const [cover] = draft.covers;
    return draft.rows.map(({ name, cells }): ProposedRow => ({
      name,
      values: (cover?.fields ?? []).map((f) => ({ field: f.id, cell: cells[f.parameter] ?? '' })),
      outcome: cells[cover?.outcome ?? ''] ?? '',
      shows: [],
    }));
  });
}

/** A case can walk one path only: the first is added. */
function withPath(target: CaseContent, condition: SeenCondition, filling: GapFilling): CaseContent {
  const [path] = filling.paths;
  const { model } = condition.content;
  if (path === undefined || model.kind !== 'stateTransitions') return target;
  const steps = pathSteps(model, path, newPartId);
  const cover = coverOf(target, condition);
  return withCover({ ...target, steps: [...target.steps, ...steps.map((s) => s.step)] }, { ...cover, events: [...cover.events, ...steps.map((s) => s.carried)] });
}

function AllWritten({ as, cases, toWrite, onClose }: { readonly as: WrittenAs; readonly cases: readonly CaseContent[]; readonly toWrite: readonly ToWrite[]; readonly onClose: () => void }) {
  return (
    <Dialog title={`Write ${countOf(cases.length, as)} for ${countOf(toWrite.length, 'condition')}`} onClose={onClose}>
      <ul className="max-h-96 divide-y divide-rule overflow-y-auto text-sm">
        {cases.map((c, i) => (
          <li key={i} className="py-1">
            {c.title} <span className="text-xs text-ink2">{c.rows.length > 0 ? countOf(c.rows.length, 'row') : countOf(c.steps.length, 'step')}</span>
          </li>
        ))}
      </ul>
      {as === 'scenario' ? (
        <WriteScenarios drafts={cases} requirements={[...new Set(toWrite.flatMap((w) => w.condition.content.requirements.map((r) => r.id)))]} title={toWrite[0]?.condition.content.title ?? ''} module={cases[0]?.module ?? ''} detail={`Scenarios for ${countOf(toWrite.length, 'condition')}`} rows={null} onClose={onClose} />
      ) : (
        <div className="mt-5 flex gap-2">
          <WriteButton drafts={cases} detail={`Cases for ${countOf(toWrite.length, 'condition')}`} onClose={onClose} />
          <Button onClick={onClose}>Cancel</Button>
        </div>
      )}
    </Dialog>
  );
}

function WriteButton({ drafts, detail, onClose }: { readonly drafts: readonly CaseContent[]; readonly detail: string; readonly onClose: () => void }) {
  const { project } = useFrame();
  const write = useWrite(project);
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const writeAll = async (): Promise<void> => {
    setBusy(true);
    const made = await write({ made: drafts.map((content) => ({ kind: 'case' as const, content })), detail });
    setBusy(false);
    const [first] = made ?? [];
    if (made === null || first === undefined) return;
    toast.success(`${countOf(made.length, 'case')} written, from ${first} on. The journal can undo it.`, { action: { label: 'Open', onClick: () => void navigate(address.artefact(project, first)) } });
    onClose();
  };
  if (drafts.length > LIMITS.written) return <p className="self-center text-sm text-brick">These are {countOf(drafts.length, 'case')}, and one command writes at most {LIMITS.written.toLocaleString(locale())}. Take as few as possible, or fewer conditions at a time.</p>;
  return (
    <Button look="accent" disabled={drafts.length === 0 || busy} onClick={() => void writeAll()}>
      Write {countOf(drafts.length, 'case')}
    </Button>
  );
}
