import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { percentDown, shownRatio } from '@caderno/core/coverage';
import { baselineNumberSchema, momentKey, type Baseline, type FrozenCoverage } from '@caderno/contract';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { call, download, failureSentence, tellFailure, useCoverage } from '../api/index.ts';
import { address, useFrame, usePageName } from '../frame/index.ts';
import { Button, Choose, KIND_NAME, Section, TextButton, countOf, dateAndTime, durationOf, locale } from '../look/index.ts';
import { Changes } from './Changes.tsx';

interface Props {
  readonly baseline: Baseline;
  /** That it can be compared with. */
  readonly others: readonly Baseline[];
}

/** A baseline: what it holds, its coverage beside that of now, its seal, and what changed since. */
export function BaselinePage({ baseline, others }: Props) {
  const { number, name, note, by, at, part, counts, agreed } = baseline;
  usePageName(`B-${number} ${name}`);
  const { project, canEdit } = useFrame();
  const [search, setSearch] = useSearchParams();
  const asked = baselineNumberSchema.safeParse(search.get('to'));
  const to = asked.success ? (others.find((b) => b.number === asked.data) ?? null) : null;
  return (
    <article className="px-8 pb-12 pt-5 max-phone:px-4">
      <p className="text-xs text-ink2">
        <span className="font-mono">B-{number}</span> · {part === '' ? 'everything' : `of ${part}`} · taken by {by}, {dateAndTime(at)}
      </p>
      <h2 className="mt-1 font-serif text-2xl font-semibold">{name}</h2>
      {note !== '' && <p className="mt-1 whitespace-pre-wrap">{note}</p>}
      <p className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1 print:hidden">
        <Link className="font-semibold text-blue underline underline-offset-2" to={address.coverage(momentKey(project, { kind: 'baseline', baseline: number }))}>
          Open the project as it was
        </Link>
        <SaveAsFiles number={number} />
        {canEdit && (
          <Link className="underline decoration-rule2 underline-offset-2" to={address.newHandOff(project, { baseline: number })}>
            Hand it off
          </Link>
        )}
      </p>
      <Section title="What it holds">
        <ul className="mt-1 flex flex-wrap gap-x-6 text-sm">
          {ARTEFACT_KINDS.flatMap((kind) => (counts[kind] === undefined ? [] : [<li key={kind}>{countOf(counts[kind], ...KIND_NAME[kind])}</li>]))}
          {Object.keys(counts).length === 0 && <li>nothing yet</li>}
          <li className="text-ink2">{agreed.toLocaleString(locale())} of them agreed</li>
        </ul>
        <Coverage baseline={baseline} to={to} />
        <Seal key={number} baseline={baseline} />
      </Section>
      <Section
        title="What changed"
        aside="in artefacts that are not withdrawn"
        actions={
          <Choose
            label="Up to"
            showLabel
            value={to === null ? '' : String(to.number)}
            options={[{ value: '', name: 'now' }, ...others.map((b) => ({ value: String(b.number), name: `B-${b.number} ${b.name}` }))]}
            onChange={(value) => setSearch(value === '' ? {} : { to: value }, { replace: true })}
          />
        }
      >
        <Changes key={`${number} ${to?.number ?? ''}`} from={number} to={to?.number ?? null} />
      </Section>
    </article>
  );
}

/** All that it holds as a zip of open files: to keep in a code repository, or to make a project of elsewhere. */
function SaveAsFiles({ number }: { readonly number: Baseline['number'] }) {
  const { project } = useFrame();
  const [busy, setBusy] = useState(false);
  const save = (): void => {
    setBusy(true);
    void download('exportFolder', { params: { project, baseline: number } }).catch(tellFailure).finally(() => setBusy(false));
  };
  return (
    <TextButton disabled={busy} title="A zip with a readable file for each artefact. The page ‘Make a project’ takes it in again." onClick={save}>
      {busy ? 'Writing the files …' : 'Save as files'}
    </TextButton>
  );
}

function Coverage({ baseline, to }: { readonly baseline: Baseline; readonly to: Baseline | null }) {
  const { project } = useFrame();
  const present = useCoverage(project).data;
  const then = baseline.coverage;
  if (then === null) return <p className="mt-2 text-sm text-ink2">No coverage was computed for it{baseline.part === '' ? ': the project changed all the while' : ', as it is of a part'}.</p>;
  const now = to === null ? (present === undefined ? null : { ...present, unanalysed: present.unanalysed.length }) : to.coverage;
  const head = to === null ? 'now' : `B-${to.number}`;
  const percent = (counts: FrozenCoverage['counts']): string => {
    const share = percentDown(shownRatio(counts));
    return share === null ? '–' : `${share} %`;
  };
  const lines: readonly (readonly [string, (c: FrozenCoverage) => string])[] = [
    ['coverage', (c) => percent(c.counts)],
    ['shown', (c) => c.counts.shown.toLocaleString(locale())],
    ['linked only', (c) => c.counts.linked.toLocaleString(locale())],
    ['gaps', (c) => c.counts.gap.toLocaleString(locale())],
    ['waiting or suspect', (c) => (c.counts.waiting + c.counts.suspect).toLocaleString(locale())],
    ['requirements not analysed', (c) => c.unanalysed.toLocaleString(locale())],
    ['instances', (c) => c.instances.toLocaleString(locale())],
    ['time to execute', (c) => durationOf(c.minutes)],
  ];
  return (
    <table className="mt-3 text-sm" aria-label="Coverage then and later">
      <thead>
        <tr className="text-xs text-ink2">
          <td />
          <th scope="col" className="px-4 py-0.5 text-right font-mono font-normal">
            B-{baseline.number}
          </th>
          <th scope="col" className="px-4 py-0.5 text-right font-mono font-normal">
            {head}
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map(([name, value]) => {
          const later = now === null ? '' : value(now);
          return (
            <tr key={name} className="border-t border-rule">
              <th scope="row" className="py-0.5 pr-4 text-left font-normal">
                {name}
              </th>
              <td className="px-4 text-right">{value(then)}</td>
              <td className={`px-4 text-right ${later === value(then) ? 'text-ink2' : 'font-semibold'}`}>{later}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

type Checked = { readonly kind: 'fits' } | { readonly kind: 'altered'; readonly what: string } | { readonly kind: 'failed'; readonly why: string } | null;

/** The seal, and whether what is held still fits it. */
function Seal({ baseline: { number, seal } }: { readonly baseline: Baseline }) {
  const { project } = useFrame();
  const [busy, setBusy] = useState(false);
  const [checked, setChecked] = useState<Checked>(null);
  const check = async (): Promise<void> => {
    setBusy(true);
    try {
      const { fits, altered } = await call('checkBaseline', { params: { project, baseline: number } });
      setChecked(fits && altered.length === 0 ? { kind: 'fits' } : { kind: 'altered', what: altered.length > 0 ? altered.slice(0, 20).join(', ') : 'versions, states or settings' });
    } catch (error) {
      setChecked({ kind: 'failed', why: failureSentence(error) });
    }
    setBusy(false);
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
      <span>Seal</span>
      <code className="break-all font-mono text-xs">{seal}</code>
      <Button className="print:hidden" disabled={busy} onClick={() => void check()}>
        {busy ? 'Checking …' : 'Check it'}
      </Button>
      <span role="status">
        {checked?.kind === 'fits' && <span className="text-pine">All that it holds is as it was sealed.</span>}
        {checked?.kind === 'altered' && <span className="font-semibold text-brick">It does not fit any more: {checked.what} were altered in the database.</span>}
        {checked?.kind === 'failed' && <span className="text-brick">{checked.why}</span>}
      </span>
    </div>
  );
}
