import { CONFIGURATION_STRENGTHS, type ConfigurationsAsked, type Environment, type EnvironmentFactor, type MadeConfigurations } from '@caderno/core/configurations';
import type { Configuration } from '@caderno/core/shared';
import { LIMITS } from '@caderno/contract';
import { wrap, type Remote } from 'comlink';
import { useMemo, useState } from 'react';
import { Button, Choose, Dialog, STRENGTH_WORD, TextButton, countOf, locale, Tick } from '../look/index.ts';
import { useBeside } from '../worker/index.ts';
import type { ConfigurationsWorker } from './configurations.worker.ts';
import { madeWords } from './madeWords.ts';

interface Props {
  readonly environment: Environment;
  /** Those the project has. */
  readonly there: readonly Configuration[];
  /** What is done with so many, as a button says it. */
  readonly verb: (count: string) => string;
  /** All that were made, and those of them that the project has to be given. */
  readonly onTake: (made: readonly Configuration[], fresh: readonly Configuration[]) => void;
  readonly onClose: () => void;
}

let shared: Remote<ConfigurationsWorker> | null = null;

function worker(): Remote<ConfigurationsWorker> {
  shared ??= wrap<ConfigurationsWorker>(new Worker(new URL('./configurations.worker.ts', import.meta.url), { type: 'module' }));
  return shared;
}

type Ticked = ReadonlyMap<EnvironmentFactor['id'], readonly string[]>;

/** Configurations made of the project’s factors: which values, and how much they are combined; looked at before they are taken. */
export function MakeConfigurations({ environment, there, verb, onTake, onClose }: Props) {
  const [ticked, setTicked] = useState<Ticked>(() => new Map(environment.factors.map((f) => [f.id, f.values])));
  const [strength, setStrength] = useState<ConfigurationsAsked['strength']>('pairs');
  const question = useMemo(() => ({ environment, there, asked: { factors: [...ticked].map(([id, values]) => ({ id, values })), strength } }), [environment, there, ticked, strength]);
  const answer = useBeside(question, make);
  const made = answer?.input === question ? answer.output : undefined;
  const all = made?.kind === 'made' ? made.configurations : [];
  const fresh = made?.kind === 'made' ? all.filter((_, i) => made.isFound[i] !== true) : [];
  const room = LIMITS.configurations - there.length;
  return (
    <Dialog title="Make configurations" onClose={onClose} wide>
      <p className="text-sm text-ink2">Tick the values that are tried out, and say how much they are combined.</p>
      <div className="mt-2 border-t border-rule">
        {environment.factors.map((factor) => (
          <TickFactor key={factor.id} factor={factor} values={ticked.get(factor.id) ?? null} onTick={(values) => setTicked(withValues(environment, ticked, factor.id, values))} />
        ))}
      </div>
      <div className="mt-3 text-sm">
        <Choose label="Combined" showLabel value={strength} options={CONFIGURATION_STRENGTHS.map((value) => ({ value, name: STRENGTH_WORD[value] }))} onChange={setStrength} />
      </div>
      <p role="status" className="mt-2 text-sm">
        {madeWords(made)}
      </p>
      {made?.kind === 'made' && <MadeTable made={made} />}
      {fresh.length > room && <p role="alert" className="mt-1 text-sm text-brick">A project may have {LIMITS.configurations.toLocaleString(locale())} configurations; there is room for {room.toLocaleString(locale())} more. Combine less, or fewer values.</p>}
      <p className="mt-4 flex gap-3">
        <Button look="accent" disabled={all.length === 0 || fresh.length > room} onClick={() => onTake(all, fresh)}>
          {verb(countOf(all.length, 'configuration'))}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </p>
    </Dialog>
  );
}

const make = ({ environment, asked, there }: { readonly environment: Environment; readonly asked: ConfigurationsAsked; readonly there: readonly Configuration[] }): Promise<MadeConfigurations> => worker().make(environment, asked, there);

/** Null takes the factor out. Factors stay in the order of the project. */
function withValues({ factors }: Environment, ticked: Ticked, id: string, values: readonly string[] | null): Ticked {
  return new Map(factors.flatMap((f) => {
    const own = f.id === id ? values : (ticked.get(f.id) ?? null);
    return own === null ? [] : [[f.id, own] as const];
  }));
}

function TickFactor({ factor, values, onTick }: { readonly factor: EnvironmentFactor; readonly values: readonly string[] | null; readonly onTick: (values: readonly string[] | null) => void }) {
  return (
    <fieldset className="grid grid-cols-[9rem_minmax(0,1fr)] gap-x-3 border-b border-rule py-1 text-sm max-[600px]:grid-cols-1">
      <legend className="sr-only">{factor.name}</legend>
      <Tick atTop checked={values !== null} onChange={(ticked) => onTick(ticked ? factor.values : null)} className="pt-1 font-semibold">
        <span className="min-w-0 break-words">{factor.name}</span>
      </Tick>
      <span className="flex flex-wrap gap-x-4">
        {factor.values.map((value) => (
          <Tick key={value} checked={values?.includes(value) === true} disabled={values === null} onChange={(ticked) => onTick(factor.values.filter((v) => (v === value ? ticked : values?.includes(v) === true)))}>
            {value}
          </Tick>
        ))}
        {factor.values.length === 0 && <span className="py-1 text-ink2">no values yet</span>}
      </span>
    </fieldset>
  );
}

const FIRST_MADE = 30;

/** Those that were made, a column for each factor. */
function MadeTable({ made: { configurations, isFound, aside } }: { readonly made: Extract<MadeConfigurations, { readonly kind: 'made' }> }) {
  const [all, setAll] = useState(false);
  const names = configurations[0]?.factors.map((f) => f.name) ?? [];
  const shown = all ? configurations : configurations.slice(0, FIRST_MADE);
  return (
    <>
      {aside.length > 0 && <p className="mt-1 text-xs text-ink2">Left aside, about factors that are not ticked: {aside.map((rule) => `“${rule}”`).join(', ')}.</p>}
      <div role="group" aria-label="What was made" tabIndex={0} className="mt-2 max-h-64 overflow-auto">
        <table className="w-full text-sm">
          <thead>
            <tr className="border-b border-ink2 text-left text-xs text-ink2">
              {names.map((name) => (
                <th key={name} scope="col" className="py-1 pr-3 font-medium">{name}</th>
              ))}
              <th scope="col" className="font-medium">there already as</th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ id, name, factors }, i) => (
              <tr key={id} className="border-b border-rule">
                {names.map((factor) => (
                  <td key={factor} className="py-1 pr-3 align-top">{factors.find((f) => f.name === factor)?.value}</td>
                ))}
                <td className="py-1 align-top text-ink2">{isFound[i] === true ? name : ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {shown.length < configurations.length && <TextButton onClick={() => setAll(true)}>{`${(configurations.length - shown.length).toLocaleString(locale())} more`}</TextButton>}
    </>
  );
}
