import type { SuiteId } from '@caderno/core/artefacts';
import { MOST_HANDED_OFF, type HandOffNumber } from '@caderno/core/handOffs';
import type { SuiteContent } from '@caderno/core/suites';
import { baselineNumberSchema, handOffNumberSchema, suiteIdSchema, type HandOff, type HandOffPreview, type HandedOffPart } from '@caderno/contract';
import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useArtefact, useBaselines, useSettings, useSummaries } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { Spread, address, useFrame, usePageName } from '../frame/index.ts';
import { Empty } from '../look/index.ts';
import { HandOffForm } from './HandOffForm.tsx';
import { MembersTable } from './MembersTable.tsx';
import { EMPTY_DRAFT, chosenLines, draftLines, handedMembers, useHandOffDraft, type HandOffDraft } from './handOffDraft.ts';
import { useHandOff, useHandOffPreview } from './handOffQueries.ts';

/** Hands a suite or a baseline off: what, to whom, until when at the left; each case with what is doubtful about it at the right. */
export function NewHandOffPage() {
  const { canEdit } = useFrame();
  const [search] = useSearchParams();
  usePageName('New');
  const suite = suiteIdSchema.safeParse(search.get('suite'));
  const baseline = baselineNumberSchema.safeParse(search.get('baseline') ?? undefined);
  if (!canEdit) return <Empty title="You can read here">Who may write in this project can hand something off.</Empty>;
  if (suite.success) return <OfSuite key={suite.data} suite={suite.data} />;
  if (baseline.success) return <HandingOff key={baseline.data} of={{ baseline: baseline.data }} runsIn={[]} earlier={null} />;
  return <ChoosePart />;
}

/** What can be handed off. */
function ChoosePart() {
  const { project } = useFrame();
  const suites = (useSummaries(project, 'suite').data ?? []).filter((s) => s.state !== 'withdrawn');
  const baselines = useBaselines(project).data ?? [];
  const line = 'block border-b border-rule px-2 py-1.5 hover:bg-page2';
  if (suites.length + baselines.length === 0) return <Empty title="There is nothing to hand off yet">Make a suite of cases and scenarios, or take a baseline: either can be handed off.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-2xl">
        <h1 className="font-serif text-2xl font-semibold">What is handed off?</h1>
        {suites.length > 0 && <h2 className="mt-4 font-serif text-lg font-semibold">A suite, as it stands now</h2>}
        <ul>
          {suites.map((s) => (
            <li key={s.id}>
              <Link className={line} to={address.newHandOff(project, { suite: s.id })}>
                <span className="mr-3 font-mono text-xs text-ink2">{s.id}</span>
                {s.title}
              </Link>
            </li>
          ))}
        </ul>
        {baselines.length > 0 && <h2 className="mt-4 font-serif text-lg font-semibold">A baseline, as it was taken</h2>}
        <ul>
          {baselines.map((b) => (
            <li key={b.number}>
              <Link className={line} to={address.newHandOff(project, { baseline: b.number })}>
                <span className="mr-3 font-mono text-xs text-ink2">B-{b.number}</span>
                {b.name}
              </Link>
            </li>
          ))}
        </ul>
      </div>
    </div>
  );
}

/** What a suite or baseline is called, and where it is. */
function usePart(of: HandedOffPart): { readonly id: string; readonly title: string } {
  const { project } = useFrame();
  const suites = useSummaries(project, 'suite').data;
  const baselines = useBaselines(project).data;
  if ('suite' in of) return { id: of.suite, title: suites?.find((s) => s.id === of.suite)?.title ?? '' };
  return { id: `B-${of.baseline}`, title: baselines?.find((b) => b.number === of.baseline)?.name ?? '' };
}

/** In the configurations in which the suite runs, as it was saved last. */
function OfSuite({ suite }: { readonly suite: SuiteId }) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'suite', suite);
  if (data === undefined) return <Loading error={error} />;
  return <AfterEarlier of={{ suite }} runsIn={data.content.configurations} />;
}

/** With `?since=2`: for the same people and in the same configurations as then, held against what was handed off. */
function AfterEarlier({ of, runsIn }: { readonly of: HandedOffPart; readonly runsIn: SuiteContent['configurations'] }) {
  const [search] = useSearchParams();
  const since = handOffNumberSchema.safeParse(search.get('since') ?? undefined);
  const number = since.success ? since.data : null;
  const { data, error } = useHandOff(number);
  if (number !== null && data === undefined) return <Loading error={error} />;
  return <HandingOff of={of} runsIn={runsIn} earlier={data ?? null} />;
}

/** `runsIn`: the configurations that are ticked at first, unless an earlier hand-off had others. */
function HandingOff({ of, runsIn, earlier }: { readonly of: HandedOffPart; readonly runsIn: SuiteContent['configurations']; readonly earlier: HandOff | null }) {
  const { project } = useFrame();
  const { id, title } = usePart(of);
  const there = useSettings(project).data?.settings.configurations;
  if (there === undefined) return <Loading error={null} />;
  const ticked = earlier === null ? runsIn : earlier.configurations.map((c) => c.id);
  const first = { ...EMPTY_DRAFT, people: earlier?.people ?? [], configurations: there.map((c) => c.id).filter((id) => ticked.includes(id)) };
  return <Drafting of={of} id={id} title={title} first={first} there={there.map((c) => c.id)} since={earlier?.number ?? null} />;
}

interface DraftingProps extends Pick<OpenedProps, 'of' | 'id' | 'title' | 'since'> {
  readonly first: HandOffDraft;
  /** The project’s configurations. */
  readonly there: readonly string[];
}

const NOTHING: HandOffPreview = { members: [], absent: [] };

function Drafting({ first, there, ...part }: DraftingProps) {
  const { project } = useFrame();
  const kept = useHandOffDraft(`${project} ${part.id} ${part.since ?? ''}`, first);
  // One that was taken out of the settings since is nowhere to be unticked.
  const draft = { ...kept.draft, configurations: kept.draft.configurations.filter((id) => there.includes(id)) };
  const { data, error, isPlaceholderData } = useHandOffPreview(part.of, draft.configurations, part.since);
  if (data === undefined && error === null) return <Loading error={null} />;
  return <Opened {...part} kept={{ ...kept, draft }} preview={data ?? NOTHING} error={error} isOld={isPlaceholderData} />;
}

interface OpenedProps {
  readonly of: HandedOffPart;
  readonly id: string;
  readonly title: string;
  /** The hand-off that it is held against. */
  readonly since: HandOffNumber | null;
  readonly kept: ReturnType<typeof useHandOffDraft>;
  readonly preview: HandOffPreview;
  /** Why it cannot be told; the form stays, to choose otherwise. */
  readonly error: Error | null;
  /** It is of other configurations; what is chosen now is being told. */
  readonly isOld: boolean;
}

function Opened({ of, id, title, since, kept: { draft, put, forget }, preview, error, isOld }: OpenedProps) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  // Sent again after an answer that never came, it is the same command.
  const [commandId] = useState(() => crypto.randomUUID());
  const members = handedMembers(preview, draft);
  const lines = draftLines(members, draft);
  const instances = lines.reduce((sum, line) => sum + line.instances, 0);
  const name = draft.name.trim() === '' ? title : draft.name.trim();
  const handOff = async (): Promise<void> => {
    setBusy(true);
    try {
      const body = { of, name, note: draft.note.trim(), due: draft.due === '' ? null : draft.due, configurations: [...draft.configurations], leftOut: preview.members.flatMap((m) => (draft.leftOut.includes(m.of) ? [m.of] : [])), people: [...draft.people], dividing: draft.dividing, chosen: chosenLines(lines, draft) };
      const made = await call('makeHandOff', { params: { project }, body }, { commandId });
      forget();
      toast.success(`H-${made.number} was handed off. Its files are here.`);
      await navigate(address.handOffs(project, made.number));
    } catch (error) {
      tellFailure(error);
      setBusy(false);
    }
  };
  return (
    <Spread
      chapter="new-hand-off"
      leftShare={36}
      opened={null}
      leftLabel="What and to whom"
      rightLabel="Cases and scenarios"
      left={
        <HandOffForm
          id={id}
          to={'suite' in of ? address.artefact(project, of.suite) : address.baselines(project, of.baseline)}
          title={title}
          draft={draft}
          put={put}
          lines={lines}
          canTake={!busy && !isOld && lines.length > 0 && instances <= MOST_HANDED_OFF && name !== ''}
          onTake={() => void handOff()}
        />
      }
      right={error !== null ? <Loading error={error} /> : <MembersTable since={since} preview={preview} draft={draft} put={put} lines={lines} />}
    />
  );
}
