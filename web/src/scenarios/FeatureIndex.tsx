import type { FeatureId } from '@caderno/core/artefacts';
import type { TagTest } from '@caderno/core/scenarios';
import { TagIcon } from 'lucide-react';
import { Link, useLocation, useSearchParams } from 'react-router';
import type { ListedHead } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { ListPage, type LineLook, type Listing } from '../listing/index.ts';
import { STATE_WORD, countOf } from '../look/index.ts';
import { FeatureFiles } from './FeatureFiles.tsx';

interface Props {
  readonly listing: Listing<'feature'>;
  readonly current: FeatureId | null;
  /** The tag expression that is asked for. */
  readonly tags: string;
  /** Null: it cannot be read as it is written now. */
  readonly test: TagTest | null;
  readonly onNew: () => void;
}

/** The index of features, in their folders; below the one that is open, and wherever tags are asked for, its scenarios. */
export function FeatureIndex({ listing, current, tags, test, onNew }: Props) {
  const { project } = useFrame();
  const filtered = tags.trim() !== '' && test !== null;
  const shown = (head: ListedHead<'feature'>['head']) => (filtered ? head.scenarios.filter((s) => test(s.tags)) : head.scenarios);
  const scenarios = listing.list?.reduce((sum, { head }) => sum + shown(head).length, 0) ?? 0;
  const look: LineLook<'feature'> = {
    notes: ({ head }) => [
      filtered ? `${shown(head).length} of ${countOf(head.scenarios.length, 'scenario')}` : countOf(head.scenarios.length, 'scenario'),
      ...(head.problems === 0 ? [] : [countOf(head.problems, 'problem')]),
      ...(head.state === 'draft' ? [] : [STATE_WORD[head.state].toLowerCase()]),
    ],
    below: (listed) => (listed.id === current || filtered ? <ScenarioLines feature={listed.head.id} scenarios={shown(listed.head)} common={commonTags(listed.head.scenarios)} /> : null),
  };
  const heading = (
    <h1 className="flex items-baseline gap-2.5 font-serif text-xl font-semibold">
      Scenarios
      <span className="font-sans text-xs font-normal text-ink2">{listing.list === undefined ? '' : `${countOf(listing.list.length, 'feature')}, ${scenarios.toLocaleString()}`}</span>
      <Link to={address.phrases(project)} className="ml-auto text-base font-semibold underline decoration-rule2 underline-offset-4">
        Phrasebook
      </Link>
    </h1>
  );
  return <ListPage kind="feature" listing={listing} current={current} heading={heading} look={look} onNew={onNew} more={<FeatureFiles listing={listing} />} news={<TagLine tags={tags} isRead={test !== null} />} />;
}

/** Asks for tags: `@smoke and not @slow`. It stands in the address. */
function TagLine({ tags, isRead }: { readonly tags: string; readonly isRead: boolean }) {
  const [, setSearch] = useSearchParams();
  const ask = (text: string): void =>
    setSearch(
      (now) => {
        const next = new URLSearchParams(now);
        if (text === '') next.delete('tags');
        else next.set('tags', text);
        return next;
      },
      { replace: true },
    );
  return (
    <label className={`mt-2 flex h-[30px] items-center gap-2 rounded-[5px] border bg-page2 px-2.5 font-mono text-xs focus-within:border-blue ${isRead ? 'border-rule2' : 'border-ochre'}`}>
      <TagIcon size={13} aria-hidden="true" className="shrink-0 text-ink2" />
      <input aria-label="Tags" value={tags} onChange={(event) => ask(event.target.value)} placeholder="@smoke and not @slow" title="Scenarios with these tags: and, or, not, brackets" aria-invalid={!isRead} spellCheck={false} className="min-w-0 flex-1 bg-transparent placeholder:text-ink3 focus:outline-none" />
      {!isRead && <span className="shrink-0 font-sans text-ochre-ink">not finished</span>}
    </label>
  );
}

type ListedScenarios = ListedHead<'feature'>['head']['scenarios'];

/** Tags that all have say nothing of one. */
function commonTags(scenarios: ListedScenarios): ReadonlySet<string> {
  const [first, ...others] = scenarios;
  return new Set(first?.tags.filter((tag) => others.every((s) => s.tags.includes(tag))));
}

function ScenarioLines({ feature, scenarios, common }: { readonly feature: FeatureId; readonly scenarios: ListedScenarios; readonly common: ReadonlySet<string> }) {
  const { project } = useFrame();
  const { search, hash, pathname } = useLocation();
  return (
    <ol aria-label={`Scenarios of ${feature}`} className="border-b border-rule pb-1.5">
      {scenarios.map(({ number, name, tags, instances }) => {
        const to = { pathname: address.scenarios(project, feature), search, hash: `#${number}` };
        const own = tags.filter((tag) => !common.has(tag));
        const isHere = pathname === to.pathname && hash === to.hash;
        return (
          <li key={number}>
            <Link to={to} replace aria-current={isHere ? 'true' : undefined} className={`flex items-baseline gap-2.5 py-1 pl-[3.1rem] pr-5 text-sm leading-[1.4] hover:bg-page2 ${isHere ? 'bg-blue-wash shadow-[inset_3px_0_0_var(--color-blue)]' : ''}`}>
              <span className="w-4 shrink-0 text-right font-mono text-[11px] text-ink2">{number}</span>
              <span className="min-w-0 flex-1">
                {name === '' ? <span className="text-ink2">without a name</span> : name}
                {own.length > 0 && <span className="ml-1.5 font-mono text-[11px] text-plum">{own.join(' ')}</span>}
              </span>
              {instances > 1 && <span className="shrink-0 text-xs text-ink2" title={`executed ${instances} times, once for each row of its examples`}>× {instances.toLocaleString()}</span>}
            </Link>
          </li>
        );
      })}
    </ol>
  );
}
