import { parseScenarioId } from '@caderno/core/artefacts';
import { configurationNames, type HandOffLine, type HandOffNumber } from '@caderno/core/handOffs';
import { ownerOf } from '@caderno/core/suites';
import { momentKey, suiteIdSchema, type HandOff } from '@caderno/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame, usePageName } from '../frame/index.ts';
import { Section, TextButton, countOf, dateAndTime, dayName, durationOf, locale, usePrinting } from '../look/index.ts';
import { BringBack } from './BringBack.tsx';
import { SaveHandOff } from './SaveHandOff.tsx';
import { SharesTable } from './SharesTable.tsx';
import { TellDialog } from './TellDialog.tsx';
import { useHandOff } from './handOffQueries.ts';

/** A hand-off: who got what, as files, and what became newer since. */
export function HandOffPage({ number }: { readonly number: HandOffNumber }) {
  const { data, error } = useHandOff(number);
  return data === undefined ? <Loading error={error} /> : <Opened handOff={data} />;
}

function Opened({ handOff }: { readonly handOff: HandOff }) {
  const { project, canEdit, isPast } = useFrame();
  const [telling, setTelling] = useState(false);
  const { number, name, note, of, baseline, due, by, at, instances, minutes, lines, now } = handOff;
  usePageName(`H-${number} ${name}`);
  const suite = suiteIdSchema.safeParse(of);
  const hasScenarios = lines.some((line) => parseScenarioId(line.of) !== null);
  return (
    <article className="px-8 pb-12 pt-5 max-phone:px-4">
      <p className="text-xs text-ink2">
        <span className="font-mono">H-{number}</span> · of{' '}
        <Link className="underline decoration-rule2" to={suite.success ? address.artefact(project, suite.data) : address.baselines(project, baseline)}>
          {of}
        </Link>{' '}
        · handed off by {by}, {dateAndTime(at)}
      </p>
      <h2 className="mt-1 font-serif text-2xl font-semibold">{name}</h2>
      {note !== '' && <p className="mt-1 whitespace-pre-wrap">{note}</p>}
      <p className="mt-1 text-sm">
        {countOf(instances, 'instance')}
        {minutes > 0 && `, ${durationOf(minutes)}`}
        {due !== null && `, to be done by ${dayName(due)}`}
      </p>
      <p className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 print:hidden">
        <SaveHandOff number={number} person={null} hasScenarios={hasScenarios} />
        {canEdit && !isPast && <TextButton onClick={() => setTelling(true)}>tell each by mail</TextButton>}
        {canEdit && <BringBack number={number} />}
        {canEdit && suite.success && (
          <Link className="text-sm underline underline-offset-2" to={address.newHandOff(project, { suite: suite.data, since: number })}>
            Hand it off again
          </Link>
        )}
        <Link className="text-sm underline underline-offset-2" to={address.cases(momentKey(project, { kind: 'baseline', baseline }))}>
          Open the project as it was handed off (B-{baseline})
        </Link>
      </p>
      {telling && <TellDialog handOff={handOff} onClose={() => setTelling(false)} />}
      <Section title="Who does what">
        <SharesTable lines={lines} action={(person) => <SaveHandOff number={number} person={person} hasScenarios={hasScenarios} />} />
      </Section>
      {now.length > 0 && <Newer handOff={handOff} />}
      <Section title="What is executed" aside={countOf(new Set(lines.map((l) => l.of)).size, 'case or scenario', 'cases and scenarios')}>
        <Lines handOff={handOff} />
      </Section>
    </article>
  );
}

const MOST_NEWER = 20;

/** What was changed or withdrawn since: the hand-off keeps the versions it has. */
function Newer({ handOff: { baseline, lines, now } }: { readonly handOff: HandOff }) {
  const { project } = useFrame();
  const then = new Map(lines.map((line) => [line.of, line]));
  return (
    <Section title="Newer by now" aside="the hand-off keeps the versions it has" actions={<Link className="underline decoration-rule2" to={address.baselines(project, baseline)}>All that changed since</Link>}>
      <ul className="mt-1 text-sm">
        {now.slice(0, MOST_NEWER).map(({ of, version }) => (
          <li key={of} className="flex flex-wrap gap-x-3 py-0.5">
            <Link className="font-mono text-xs leading-6 underline decoration-rule2" to={address.covering(project, of)}>{of}</Link>
            <span className="min-w-0 flex-1">{then.get(of)?.title}</span>
            {version === 0 ? (
              <span className="text-brick">withdrawn or gone</span>
            ) : (
              <Link className="underline decoration-rule2" to={`${address.versions(project, ownerOf(of))}?from=${then.get(of)?.version}&to=${version}`}>
                v{then.get(of)?.version} → v{version}
              </Link>
            )}
          </li>
        ))}
      </ul>
      {now.length > MOST_NEWER && <p className="text-sm text-ink2">and {(now.length - MOST_NEWER).toLocaleString(locale())} more</p>}
    </Section>
  );
}

const FIRST_LINES = 200;

function Lines({ handOff: { lines, configurations } }: { readonly handOff: HandOff }) {
  const { project } = useFrame();
  const printing = usePrinting();
  const [all, setAll] = useState(false);
  const names = configurationNames(configurations);
  const shown = all || printing ? lines : lines.slice(0, FIRST_LINES);
  const who = (line: HandOffLine): string => (line.execution === 'automated' ? 'automated' : line.person === '' ? 'nobody yet' : line.person);
  return (
    <>
      <table className="mt-1 w-full text-sm" aria-label="What is executed">
        <thead>
          <tr className="border-b border-rule2 text-left text-xs text-ink2">
            <th scope="col" className="w-16 py-1 pr-3 font-normal">Id</th>
            <th scope="col" className="py-1 pr-3 font-normal">Title</th>
            {configurations.length > 0 && <th scope="col" className="py-1 pr-3 font-normal">In</th>}
            <th scope="col" className="py-1 pr-3 text-right font-normal">Instances</th>
            <th scope="col" className="py-1 pr-3 text-right font-normal">Time</th>
            <th scope="col" className="py-1 font-normal">Person</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((line) => (
            <tr key={`${line.of} ${line.configuration ?? ''}`} className="border-b border-rule align-baseline">
              <td className="whitespace-nowrap py-1 pr-3 font-mono text-xs">
                <Link className="underline decoration-rule2" to={address.covering(project, line.of)}>{line.of}</Link> <span className="text-ink2">v{line.version}</span>
              </td>
              <td className="break-words py-1 pr-3">{line.title}</td>
              {configurations.length > 0 && <td className="py-1 pr-3">{line.configuration === null ? '' : names.get(line.configuration)}</td>}
              <td className="py-1 pr-3 text-right">{line.instances.toLocaleString(locale())}</td>
              <td className="whitespace-nowrap py-1 pr-3 text-right">{line.minutes === null ? '–' : durationOf(line.minutes * line.instances)}</td>
              <td className={`py-1 ${line.person === '' && line.execution === 'byHand' ? 'text-brick' : ''}`}>{who(line)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > shown.length && <TextButton onClick={() => setAll(true)}>{`${(lines.length - shown.length).toLocaleString(locale())} more`}</TextButton>}
    </>
  );
}
