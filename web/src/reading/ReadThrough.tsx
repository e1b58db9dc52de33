import { isCaseId, parseScenarioId, type CoveringId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { instanceName, type OpenedAt, type OpenedInstance } from '@caderno/core/shared';
import { coveringIdSchema } from '@caderno/contract';
import { ChevronLeft, ChevronRight, Printer } from 'lucide-react';
import { useMemo } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { Loading, useRaiseQuestion } from '../artefacts/index.ts';
import { address, useCommands, useFrame, type Command } from '../frame/index.ts';
import { Button, Empty, TextButton, countOf, locale } from '../look/index.ts';
import { Remarks } from '../remarks/index.ts';
import { useOpened } from '../steps/index.ts';
import { Before, readableTexts } from './Before.tsx';
import { InConfiguration } from './InConfiguration.tsx';
import { ReadLine, readableLines, type ReadableLine } from './ReadLine.tsx';
import { placeOfLine, type ReadArtefact } from './readPlace.ts';
import { lasting, namedCases, readingOrder } from './selection.ts';
import { unclearPlaces, type Unclear } from './unclear.ts';
import { useReadable } from './useReadable.ts';

/** One instance of a case or a scenario, read as an executor would: values in place, shared steps and calls opened, all by keyboard. */
export function ReadThrough() {
  const { project } = useFrame();
  const { case: artefact, scenario } = useParams();
  const parsed = coveringIdSchema.safeParse(scenario === undefined ? artefact : `${artefact}/${scenario}`);
  if (!parsed.success) return <Empty title="Nothing to read">The address names no case and no scenario.</Empty>;
  return <Reading key={`${project} ${parsed.data}`} id={parsed.data} />;
}

function Reading({ id }: { readonly id: CoveringId }) {
  const { content, artefact, error } = useReadable(id);
  if (content === undefined || artefact === null) return <Loading error={error} />;
  if (content === null) return <Empty title="No such scenario">The feature has none of this number. It may be in another feature now, or taken out.</Empty>;
  return <ReadOpened id={id} content={content} artefact={artefact} />;
}

function ReadOpened({ id, content, artefact }: { readonly id: CoveringId; readonly content: CaseContent; readonly artefact: ReadArtefact }) {
  const { project } = useFrame();
  const [search, setSearch] = useSearchParams();
  const asked = /^\d{1,18}$/.test(search.get('instance') ?? '') ? BigInt(search.get('instance') ?? '1') - 1n : 0n;
  const { opened } = useOpened(content, search.get('in'), { kind: 'number', number: asked });
  if (opened.kind !== 'opened') {
    return <Empty title="Too much to be read">{opened.kind === 'tooDeep' ? `Calls and shared steps are nested more than ${opened.most} deep.` : `Opened it has ${opened.steps.toLocaleString(locale())} steps, and at most ${opened.most.toLocaleString(locale())} are shown.`}</Empty>;
  }
  const { instance } = opened;
  if (instance === null) return <Empty title="No row runs">All rows of {id} are set aside, so there is nothing to read through. Choose on its page which rows run.</Empty>;
  const go = (to: bigint, step = 0): void => {
    if (to >= 0n && to < opened.instances) setSearch({ ...Object.fromEntries(lasting(search)), instance: String(to + 1n), ...(step > 0 ? { step: String(step + 1) } : {}), ...(search.has('one') ? { one: '1' } : {}) }, { replace: true });
  };
  const at = Math.min(Math.max(0, Number(search.get('step') ?? '1') - 1), Math.max(0, opened.steps.length - 1));
  const one = search.has('one');
  return <Page key={project} id={id} content={content} artefact={artefact} opened={opened} instance={instance} at={at} one={one} onGo={go} onOne={() => setSearch({ ...Object.fromEntries(lasting(search)), instance: String(instance.number + 1n), step: String(at + 1), ...(one ? {} : { one: '1' }) }, { replace: true })} />;
}

interface PageProps {
  readonly id: CoveringId;
  readonly content: CaseContent;
  readonly artefact: ReadArtefact;
  readonly opened: OpenedAt;
  readonly instance: OpenedInstance;
  /** Place of the step that is read. */
  readonly at: number;
  /** Step by step: only the one that is read. */
  readonly one: boolean;
  readonly onGo: (instance: bigint, step?: number) => void;
  readonly onOne: () => void;
}

function Page({ id, content, artefact, opened, instance, at, one, onGo, onOne }: PageProps) {
  const { project, canEdit } = useFrame();
  const unclear = unclearPlaces(opened);
  const raise = useRaiseQuestion();
  const lines = readableLines(opened.steps);
  const texts = readableTexts(content, opened);
  const here = placeOfLine(artefact, lines[at]?.line);
  const placeOf = (line: ReadableLine): string | undefined => {
    const { id: of, path } = placeOfLine(artefact, line.line);
    return of === here.id ? path : undefined;
  };
  useReadingKeys({ id, opened, instance, at, onGo, onOne });
  const ask = (step: number): void => raise(content.covers.map((c) => ({ kind: 'condition', id: c.id, items: [], holds: false })), `${id}, step ${step + 1}: what is meant?`);
  return (
    <div className="h-full overflow-y-auto px-8 py-6 print:overflow-visible print:p-0">
      <article className="mx-auto max-w-3xl">
        <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <Link className="font-mono text-xs text-ink2 underline decoration-rule2 print:no-underline" to={address.covering(project, id)}>
            {id}
          </Link>
          <h1 className="font-serif text-2xl font-semibold">{content.title}</h1>
          <span className="ml-auto flex items-center gap-3 print:hidden">
            <InConfiguration />
            <TextButton onClick={onOne}>{one ? 'whole' : 'step by step'}</TextButton>
            <Button onClick={() => window.print()}>
              <Printer size={14} aria-hidden="true" /> Print
            </Button>
          </span>
        </header>
        <InSelection id={id} />
        <Instance instance={instance} total={opened.instances} onGo={onGo} />
        <Before content={content} texts={texts} />
        <ol className="mt-4" aria-label="Steps to be done">
          {lines.map((line, i) =>
            one && i !== at ? null : <ReadLine key={i} readable={line} before={one ? null : (lines[i - 1]?.line ?? null)} number={i + 1} isCurrent={i === at} place={placeOf(line)} mayOnlyExpect={!isCaseId(id)} {...(canEdit ? { onAsk: () => ask(i) } : {})} onPoint={() => onGo(instance.number, i)} />,
          )}
          {lines.length === 0 && content.kind === 'procedure' && <li className="text-ink2">No step is written yet.</li>}
        </ol>
        <Remarks key={here.id} place="page" id={here.id} version={here.version} content={here.content} here={here.path} />
        <UnclearList places={unclear} onGo={(step) => onGo(instance.number, step)} />
        <p className="mt-6 text-xs text-ink2 print:hidden">
          ↓ ↑ the next step and the one before · → ← the next instance and the one before · s step by step · n p the next one to be read and the one before · Alt R says something of the step · a value is copied by a click
        </p>
      </article>
    </div>
  );
}

/** Where one is in a selection of cases, and the way to all of it on one page. */
function InSelection({ id }: { readonly id: CoveringId }) {
  const { project } = useFrame();
  const [search] = useSearchParams();
  const cases = namedCases(search);
  if (cases.length === 0) return null;
  return (
    <p className="mt-1 text-sm text-ink2 print:hidden">
      {isCaseId(id) ? 'case' : 'scenario'} {cases.indexOf(id) + 1} of {cases.length} selected ·{' '}
      <Link className="underline decoration-rule2" to={{ pathname: address.readingSelection(project), search: lasting(search).toString() }}>
        all on one page
      </Link>
    </p>
  );
}

function Instance({ instance, total, onGo }: { readonly instance: OpenedInstance; readonly total: bigint; readonly onGo: (instance: bigint) => void }) {
  const { number } = instance;
  const look = 'grid size-7 place-items-center rounded hover:bg-page2 disabled:text-ink3';
  return (
    <div className="mt-2 flex items-center gap-2 border-y border-rule2 bg-page2 px-3 py-1.5 text-sm">
      <button type="button" className={`${look} print:hidden`} aria-label="Instance before" disabled={number === 0n} onClick={() => onGo(number - 1n)}>
        <ChevronLeft size={15} aria-hidden="true" />
      </button>
      <span>
        instance {(number + 1n).toLocaleString(locale())} of {total.toLocaleString(locale())}
      </span>
      <button type="button" className={`${look} print:hidden`} aria-label="Next instance" disabled={number + 1n >= total} onClick={() => onGo(number + 1n)}>
        <ChevronRight size={15} aria-hidden="true" />
      </button>
      <strong className="font-mono">{instanceName(instance) || 'without rows'}</strong>
    </div>
  );
}

function UnclearList({ places, onGo }: { readonly places: readonly Unclear[]; readonly onGo: (step: number) => void }) {
  if (places.length === 0) return null;
  return (
    <section className="mt-6 rounded-field bg-brick-wash px-4 py-2 text-sm print:hidden" aria-label="What is unclear">
      <h2 className="font-semibold text-brick">{countOf(places.length, 'unclear place')}</h2>
      <ul>
        {places.slice(0, 20).map((place, i) => (
          <li key={i}>
            <TextButton onClick={() => onGo(place.step)}>step {place.step + 1}</TextButton> {UNCLEAR_WORD[place.kind](place.name)}
          </li>
        ))}
        {places.length > 20 && <li className="text-ink2">and {places.length - 20} more</li>}
      </ul>
    </section>
  );
}

const UNCLEAR_WORD: Record<Unclear['kind'], (name: string) => string> = {
  unbound: (name) => `<${name}> has no value in this instance`,
  undeclared: (name) => `<${name}> is not declared where it stands`,
  gone: (name) => `${name} is not there any more`,
  withdrawn: (name) => `${name} is withdrawn`,
};

function useReadingKeys({ id, opened, instance, at, onGo, onOne }: Pick<PageProps, 'id' | 'opened' | 'instance' | 'at' | 'onGo' | 'onOne'>): void {
  const { project } = useFrame();
  const navigate = useNavigate();
  const cases = useSummaries(project, 'case').data;
  const features = useSummaries(project, 'feature').data;
  const [search] = useSearchParams();
  const { number } = instance;
  const last = opened.steps.length - 1;
  const commands = useMemo<Command[]>(() => {
    const caseAt = (step: number) => (): void => {
      const feature = features?.find((f) => f.id === parseScenarioId(id)?.feature);
      const ids = readingOrder(search, cases ?? [], feature);
      const to = ids[ids.indexOf(id) + step];
      if (to !== undefined) void navigate({ pathname: address.reading(project, to), search: lasting(search).toString() });
    };
    return [
      { id: 'read-next-step', title: 'The next step', keys: ['ArrowDown', 'j'], keyLabel: '↓', run: () => onGo(number, Math.min(last, at + 1)) },
      { id: 'read-step-before', title: 'The step before', keys: ['ArrowUp', 'k'], keyLabel: '↑', run: () => onGo(number, Math.max(0, at - 1)) },
      { id: 'read-next-instance', title: 'The next instance', keys: 'ArrowRight', keyLabel: '→', run: () => onGo(number + 1n) },
      { id: 'read-instance-before', title: 'The instance before', keys: 'ArrowLeft', keyLabel: '←', run: () => onGo(number - 1n) },
      { id: 'read-next-case', title: 'Read the next one', keys: 'n', keyLabel: 'n', run: caseAt(1) },
      { id: 'read-case-before', title: 'Read the one before', keys: 'p', keyLabel: 'p', run: caseAt(-1) },
      { id: 'read-step-by-step', title: 'Read step by step, or whole', keys: 's', keyLabel: 's', run: onOne },
    ];
  }, [at, cases, features, id, last, navigate, number, onGo, onOne, project, search]);
  useCommands(commands);
}
