import type { FeatureId } from '@caderno/core/artefacts';
import type { ScenarioPlace } from '@caderno/core/scenarios';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, useSummaries } from '../../api/index.ts';
import { Loading } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Empty, Section, TextButton, countOf } from '../../look/index.ts';
import { SideBySide } from './SideBySide.tsx';

/** Scenarios of a group that are told before somebody asks for all. */
const FEW = 8;

/** Scenarios that are the same but for values, and pairs nearly the same, over all features. */
export function TwicePage() {
  const { project } = useFrame();
  const { data, error } = useQuery({ queryKey: [project, 'list', 'twice'], queryFn: () => call('readWrittenTwice', { params: { project } }), placeholderData: keepPreviousData });
  if (data === undefined) return <Loading error={error} />;
  const { same, alike } = data;
  if (same.length + alike.length === 0) return <Empty title="Nothing is written twice">No two scenarios say the same, or nearly the same.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl pb-10">
        <header className="flex flex-wrap items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Scenarios written twice</h1>
          <Link to={address.scenarios(project)} className="ml-auto text-sm underline decoration-rule2 underline-offset-2">
            Back to the scenarios
          </Link>
        </header>
        {same.length > 0 && (
          <Section title="The same but for values" aside={countOf(same.length, 'group')}>
            <ul>
              {same.map((places) => (
                <Same key={keyOf(places[0])} places={places} />
              ))}
            </ul>
          </Section>
        )}
        {alike.length > 0 && (
          <Section title="Nearly the same" aside={`${countOf(alike.length, 'pair')} with most of their steps in common`}>
            <ul>
              {alike.map((pair) => (
                <Pair key={`${keyOf(pair.first)} ${keyOf(pair.second)}`} {...pair} />
              ))}
            </ul>
          </Section>
        )}
      </div>
    </div>
  );
}

function keyOf(place: ScenarioPlace | undefined): string {
  return place === undefined ? '' : `${place.feature}/${place.scenario}`;
}

function Same({ places }: { readonly places: readonly ScenarioPlace[] }) {
  const { project, canEdit } = useFrame();
  const [all, setAll] = useState(false);
  const features = [...new Set(places.map((p) => p.feature))];
  return (
    <li className="border-b border-rule py-2">
      <ul>
        {places.slice(0, all ? places.length : FEW).map((place) => (
          <li key={keyOf(place)} className="py-0.5">
            <ScenarioLink place={place} />
          </li>
        ))}
      </ul>
      <p className="mt-0.5 flex flex-wrap gap-x-4 text-sm text-ink2">
        {!all && places.length > FEW && <TextButton onClick={() => setAll(true)}>all {places.length}</TextButton>}
        {canEdit &&
          features.map((feature) => {
            const here = places.filter((p) => p.feature === feature);
            return here.length < 2 ? null : (
              <Link key={feature} to={outlineAddress(project, feature, here)} className="text-blue underline underline-offset-2">
                Make one outline of the {here.length} in {feature}
              </Link>
            );
          })}
        {features.length > 1 && <span>in {countOf(features.length, 'feature')}</span>}
      </p>
    </li>
  );
}

function outlineAddress(project: string, feature: FeatureId, places: readonly ScenarioPlace[]) {
  return { pathname: address.scenarios(project, feature), search: `?outline=${places.map((p) => p.scenario).join(',')}`, hash: `#${places[0]?.scenario ?? ''}` };
}

function Pair({ first, second, likeness }: { readonly first: ScenarioPlace; readonly second: ScenarioPlace; readonly likeness: number }) {
  const [open, setOpen] = useState(false);
  return (
    <li className="border-b border-rule">
      <div className="grid grid-cols-[1fr_1fr_7.5rem] items-baseline gap-3 py-1.5">
        <ScenarioLink place={first} />
        <ScenarioLink place={second} />
        <span className="flex items-baseline justify-end gap-3 text-xs tabular-nums text-ink2">
          {Math.round(likeness * 100)} %
          <TextButton aria-expanded={open} aria-label={`Compare ${keyOf(first)} and ${keyOf(second)}`} onClick={() => setOpen(!open)}>
            {open ? 'close' : 'compare'}
          </TextButton>
        </span>
      </div>
      {open && <SideBySide first={first} second={second} />}
    </li>
  );
}

function ScenarioLink({ place }: { readonly place: ScenarioPlace }) {
  const { project } = useFrame();
  const feature = useSummaries(project, 'feature').data?.find((f) => f.id === place.feature);
  const scenario = feature?.scenarios.find((s) => s.number === place.scenario);
  return (
    <Link to={{ pathname: address.scenarios(project, place.feature), hash: `#${place.scenario}` }} className="inline-block min-h-6 text-sm leading-6">
      <span className="font-mono text-xs underline decoration-rule2">{keyOf(place)}</span> {scenario?.name || 'without a name'} <span className="text-xs text-ink2">{feature?.title}</span>
    </Link>
  );
}
