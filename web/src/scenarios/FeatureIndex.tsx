import type { FeatureId } from '@caderno/core/artefacts';
import { EXECUTIONS, type Execution } from '@caderno/core/cases';
import { executionOf, scenarioEffort } from '@caderno/core/scenarios';
import { TagIcon } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useScenarioExecution, type ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { ListPage, type LineLook, type Listing } from '../listing/index.ts';
import { STATE_WORD, TextButton, countOf, durationOf, locale } from '../look/index.ts';
import { FeatureFiles } from './FeatureFiles.tsx';
import type { AskedScenarios } from './useAskedScenarios.ts';

interface Props {
  readonly listing: Listing<'feature'>;
  readonly current: FeatureId | null;
  readonly asked: AskedScenarios;
  readonly onNew: () => void;
}

/** The index of features, in their folders; below the one that is open, and wherever some scenarios are asked for, its scenarios. */
export function FeatureIndex({ listing, current, asked, onNew }: Props) {
  const { project } = useFrame();
  const { filtered, test } = asked;
  const look = useMemo<LineLook<'feature'>>(
    () => ({
      notes: ({ head }) => [
        filtered ? `${head.scenarios.filter(test).length} of ${countOf(head.scenarios.length, 'scenario')}` : countOf(head.scenarios.length, 'scenario'),
        ...(head.problems === 0 ? [] : [countOf(head.problems, 'problem')]),
        ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]),
      ],
      below: (listed) => (listed.id === current || filtered ? <ScenarioLines feature={listed.head.id} scenarios={listed.head.scenarios} test={test} /> : null),
    }),
    [current, filtered, test],
  );
  const heading = (
    <h1 className="flex items-baseline gap-2.5 font-serif text-xl font-semibold">
      Scenarios
      <Link to={address.phrases(project)} className="ml-auto whitespace-nowrap font-sans text-xs font-normal underline decoration-rule2 underline-offset-4">
        Phrasebook
      </Link>
      <Link to={address.scenariosTwice(project)} className="whitespace-nowrap font-sans text-xs font-normal underline decoration-rule2 underline-offset-4">
        Written twice
      </Link>
    </h1>
  );
  return <ListPage kind="feature" listing={listing} current={current} heading={heading} look={look} onNew={onNew} more={<FeatureFiles listing={listing} />} news={<><TagLine asked={asked} /><RunLine listing={listing} asked={asked} /></>} />;
}

/** Asks for tags: `@smoke and not @slow`. It stands in the address. */
function TagLine({ asked: { tags, isRead, ask } }: { readonly asked: AskedScenarios }) {
  return (
    <label className={`mt-2 flex h-[30px] items-center gap-2 rounded-field border bg-page2 px-2.5 font-mono text-xs focus-within:border-blue ${isRead ? 'border-rule2' : 'border-ochre'}`}>
      <TagIcon size={13} aria-hidden="true" className="shrink-0 text-ink2" />
      <input aria-label="Tags" value={tags} onChange={(event) => ask('tags', event.target.value)} placeholder="@smoke and not @slow" title="Scenarios with these tags: and, or, not, brackets" aria-invalid={!isRead} spellCheck={false} className="min-w-0 flex-1 bg-transparent placeholder:text-ink3 focus:outline-none" />
      {!isRead && <span className="shrink-0 font-sans text-ochre-ink">not finished</span>}
    </label>
  );
}

const RUN_WORD: Record<Execution, string> = { byHand: 'by hand', automated: 'automated' };

/** How many of the scenarios are run by hand and how many are automated, with what they take; each asks for these. */
function RunLine({ listing, asked: { run, ask, byTags } }: Pick<Props, 'listing' | 'asked'>) {
  const { project } = useFrame();
  const execution = useScenarioExecution(project);
  const all = listing.matching?.flatMap((l) => l.head.scenarios.filter(byTags)) ?? [];
  if (all.length === 0) return null;
  const choice = (value: Execution | null, word: string, title: string) => {
    const { scenarios, minutes } = scenarioEffort(value === null ? all : all.filter((s) => executionOf(s.tags, execution) === value), execution);
    return (
      <button key={word} type="button" aria-pressed={run === value} title={title} onClick={() => ask('run', value ?? '')} className={run === value ? 'font-semibold text-ink' : 'text-ink2 underline decoration-rule2 underline-offset-4'}>
        {scenarios.toLocaleString(locale())} {word}
        {run === value && minutes > 0 && `, ${durationOf(minutes)}`}
      </button>
    );
  };
  return (
    <p role="group" aria-label="How they are run" className="mt-2 flex flex-wrap gap-x-4 text-xs">
      {choice(null, 'in all', `in ${countOf(listing.matching?.length ?? 0, 'feature')}`)}
      {EXECUTIONS.map((e) => choice(e, RUN_WORD[e], `${e === execution.marks ? 'with' : 'without'} the tag ${execution.tag}`))}
    </p>
  );
}

type ListedScenarios = ListedHead<'feature'>['head']['scenarios'];

/** Tags that all have say nothing of one. */
function commonTags(scenarios: ListedScenarios): ReadonlySet<string> {
  const [first, ...others] = scenarios;
  return new Set(first?.tags.filter((tag) => others.every((s) => s.tags.includes(tag))));
}

interface LinesProps {
  readonly feature: FeatureId;
  readonly scenarios: ListedScenarios;
  readonly test: AskedScenarios['test'];
}

/** Scenarios of a feature that are listed before somebody asks for the others. */
const MOST_AT_ONCE = 50;

/** A feature may have hundreds: they are drawn anew only when they, or the place one is at, are others. */
const ScenarioLines = memo(function ScenarioLines({ feature, scenarios, test }: LinesProps) {
  const common = commonTags(scenarios);
  const [whole, setWhole] = useState(false);
  const { project } = useFrame();
  const { search, hash, pathname } = useLocation();
  const fitting = scenarios.filter(test);
  const isFar = fitting.slice(MOST_AT_ONCE).some((s) => hash === `#${s.number}`);
  const shown = whole || isFar || fitting.length <= MOST_AT_ONCE ? fitting : fitting.slice(0, MOST_AT_ONCE);
  return (
    <ol aria-label={`Scenarios of ${feature}`} className="border-b border-rule pb-1.5">
      {shown.map(({ number, name, tags, instances }) => {
        const to = { pathname: address.scenarios(project, feature), search, hash: `#${number}` };
        const own = tags.filter((tag) => !common.has(tag));
        const isHere = pathname === to.pathname && hash === to.hash;
        return (
          <li key={number}>
            <Link to={to} replace aria-current={isHere ? 'true' : undefined} className={`flex items-baseline gap-2.5 py-1 pl-[3.1rem] pr-5 text-sm leading-[1.4] hover:bg-page2 ${isHere ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : ''}`}>
              <span className="w-4 shrink-0 text-right font-mono text-fine text-ink2">{number}</span>
              <span className="min-w-0 flex-1">
                {name === '' ? <span className="text-ink2">without a name</span> : name}
                {own.length > 0 && <span className="ml-1.5 font-mono text-fine text-plum">{own.join(' ')}</span>}
              </span>
              {instances > 1 && <span className="shrink-0 text-xs text-ink2" title={`executed ${instances} times, once for each row of its examples`}>× {instances.toLocaleString(locale())}</span>}
            </Link>
          </li>
        );
      })}
      {shown.length < fitting.length && (
        <li className="py-1 pl-[4.6rem]">
          <TextButton onClick={() => setWhole(true)}>{(fitting.length - shown.length).toLocaleString(locale())} more</TextButton>
        </li>
      )}
    </ol>
  );
});
