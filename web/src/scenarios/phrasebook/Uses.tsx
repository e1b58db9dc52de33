import type { PhraseKey } from '@caderno/core/scenarios';
import type { FoundPhrases } from '@caderno/contract';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call, failureSentence, useSummaries } from '../../api/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { StepText } from '../FeatureLines.tsx';
import { locale } from '../../look/index.ts';

/** Where phrases are used. */
export function usePhraseUses(keys: readonly PhraseKey[]) {
  const { project } = useFrame();
  return useQuery({ queryKey: [project, 'list', 'phrases', 'uses', ...keys], queryFn: () => call('findPhraseUses', { params: { project }, body: { keys: [...keys] } }) });
}

/** The uses of a phrase, each leading to its line. */
export function Uses({ phrase }: { readonly phrase: PhraseKey }) {
  const { data, error } = usePhraseUses([phrase]);
  if (data === undefined) return <p className="py-1.5 text-xs text-ink2">{error === null ? 'Looking …' : failureSentence(error)}</p>;
  return <UseList found={data} />;
}

const MOST_SHOWN = 100;

function UseList({ found }: { readonly found: FoundPhrases }) {
  const { project } = useFrame();
  const heads = new Map(useSummaries(project, 'feature').data?.map((f) => [f.id, f]));
  const uses = found.features.flatMap(({ id, uses: all }) => all.map((use) => ({ id, ...use })));
  return (
    <ul className="border-l-2 border-rule2 pb-2 pl-4 text-sm">
      {uses.slice(0, MOST_SHOWN).map(({ id, line, scenario, text }) => (
        <li key={`${id} ${line}`} className="flex items-baseline gap-3 py-0.5">
          <Link className="w-16 shrink-0 font-mono text-xs underline decoration-rule2" to={{ pathname: address.scenarios(project, id), hash: scenario > 0 ? `#${scenario}` : '' }} title={heads.get(id)?.title}>
            {scenario > 0 ? `${id}/${scenario}` : id}
          </Link>
          <span className="min-w-0 flex-1">
            <StepText text={text} />
          </span>
          <span className="shrink-0 text-xs text-ink2">{heads.get(id)?.title}, line {line}</span>
        </li>
      ))}
      {found.total > MOST_SHOWN && <li className="text-xs text-ink2">and {(found.total - Math.min(MOST_SHOWN, uses.length)).toLocaleString(locale())} more</li>}
    </ul>
  );
}
