import { DOUBTS, leavesOut, lineKey, type Doubt, type HandOffLine, type HandOffNumber } from '@caderno/core/handOffs';
import type { HandOffMember, HandOffPreview } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useConfigurationName, whereWords } from '../configurations/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Choose, TextButton, countOf, durationOf, locale } from '../look/index.ts';
import { DOUBT_NAME, doubtWords } from './doubtWords.ts';
import type { HandOffDraft } from './handOffDraft.ts';

interface Props {
  /** The hand-off that it is held against. */
  readonly since: HandOffNumber | null;
  readonly preview: HandOffPreview;
  readonly draft: HandOffDraft;
  readonly put: (part: Partial<HandOffDraft>) => void;
  readonly lines: readonly HandOffLine[];
}

const FIRST_MEMBERS = 200;

/** Each case and scenario with what is doubtful about it; what is not ticked stays behind. */
export function MembersTable({ since, preview: { members, absent }, draft, put, lines }: Props) {
  const [doubt, setDoubt] = useState<Doubt['kind'] | null>(null);
  const [all, setAll] = useState(false);
  const byMember = useMemo(() => grouped(lines), [lines]);
  const doubtful = members.filter((m) => doubt === null || m.doubts.some((d) => d.kind === doubt));
  const shown = all ? doubtful : doubtful.slice(0, FIRST_MEMBERS);
  const out = new Set(draft.leftOut);
  const setOut = (ids: readonly string[], isOut: boolean): void => put({ leftOut: isOut ? [...new Set([...draft.leftOut, ...ids])] : draft.leftOut.filter((id) => !ids.includes(id)) });
  return (
    <div className="px-6 pb-12 pt-5 text-sm">
      <h2 className="font-serif text-xl font-semibold">Look at these before</h2>
      <Doubts members={members} chosen={doubt} onChoose={setDoubt} />
      {doubt !== null && (
        <p className="mt-1 text-xs">
          <TextButton onClick={() => setOut(doubtful.map((m) => m.of), true)}>{doubtful.length === 1 ? 'leave it out' : `leave these ${doubtful.length.toLocaleString(locale())} out`}</TextButton>
        </p>
      )}
      {since !== null && <Same since={since} members={members} out={out} onOut={(ids) => setOut(ids, true)} />}
      {absent.length > 0 && <p className="mt-1 text-xs text-ink2">Not handed off, as they are withdrawn or gone: {absent.slice(0, 10).join(', ')}{absent.length > 10 && ` and ${(absent.length - 10).toLocaleString(locale())} more`}.</p>}
      {out.size > 0 && (
        <p className="mt-1 text-xs text-ink2">
          {members.filter((m) => out.has(m.of)).length.toLocaleString(locale())} left out. <TextButton onClick={() => put({ leftOut: [] })}>take them all</TextButton>
        </p>
      )}
      {Object.keys(draft.chosen).length > 0 && (
        <p className="mt-1 text-xs text-ink2">
          Some were given out by hand. <TextButton onClick={() => put({ chosen: {} })}>give all out anew</TextButton>
        </p>
      )}
      <ul aria-label="Cases and scenarios" className="mt-3 border-t border-ink">
        {shown.map((member) => (
          <Line
            key={member.of}
            member={member}
            lines={byMember.get(member.of) ?? []}
            isOut={out.has(member.of) || member.doubts.some(leavesOut)}
            people={draft.people}
            configurations={draft.configurations}
            onOut={(isOut) => setOut([member.of], isOut)}
            onPerson={(line, person) => put({ chosen: { ...draft.chosen, [lineKey(line)]: person } })}
          />
        ))}
      </ul>
      {doubtful.length > shown.length && <TextButton onClick={() => setAll(true)}>{`${(doubtful.length - shown.length).toLocaleString(locale())} more`}</TextButton>}
      {draft.people.length === 0 && <p className="mt-3 text-xs text-ink2">Choose who executes it, and each gets a part.</p>}
    </div>
  );
}

/** How much is executed as it was in the earlier hand-off: it may stay behind. */
function Same({ since, members, out, onOut }: { readonly since: HandOffNumber; readonly members: readonly HandOffMember[]; readonly out: ReadonlySet<string>; readonly onOut: (ids: readonly string[]) => void }) {
  const same = members.filter((m) => m.same);
  const left = same.filter((m) => !out.has(m.of)).map((m) => m.of);
  return (
    <p className="mt-1 text-xs text-ink2">
      {same.length === 0 ? `All of it is executed otherwise than in H-${since}, or was not in it.` : `${same.length.toLocaleString(locale())} of ${members.length.toLocaleString(locale())} are executed as in H-${since}. `}
      {left.length > 0 && <TextButton onClick={() => onOut(left)}>{left.length === 1 ? 'leave it out' : 'hand off only what changed'}</TextButton>}
    </p>
  );
}

function grouped(lines: readonly HandOffLine[]): ReadonlyMap<string, readonly HandOffLine[]> {
  const groups = new Map<string, HandOffLine[]>();
  for (const line of lines) {
    const group = groups.get(line.of);
    if (group === undefined) groups.set(line.of, [line]);
    else group.push(line);
  }
  return groups;
}

/** How many have a doubt of each kind; a press shows those alone. */
function Doubts({ members, chosen, onChoose }: { readonly members: readonly HandOffMember[]; readonly chosen: Doubt['kind'] | null; readonly onChoose: (kind: Doubt['kind'] | null) => void }) {
  const counts = DOUBTS.map((kind) => ({ kind, count: members.filter((m) => m.doubts.some((d) => d.kind === kind)).length })).filter((c) => c.count > 0);
  if (counts.length === 0) return <p className="mt-1 text-pine">Everything is clear: agreed, with all its values.</p>;
  return (
    <p role="group" aria-label="Doubts" className="mt-2 flex flex-wrap gap-1.5">
      {counts.map(({ kind, count }) => (
        <button
          key={kind}
          type="button"
          aria-pressed={chosen === kind}
          className={`h-chip rounded-field border px-2 text-xs ${chosen === kind ? 'border-ochre-ink bg-ochre-wash font-semibold text-ochre-ink' : 'border-rule2 bg-page text-ink hover:bg-page2'}`}
          onClick={() => onChoose(chosen === kind ? null : kind)}
        >
          {DOUBT_NAME[kind](count)}
        </button>
      ))}
    </p>
  );
}

interface LineProps {
  readonly member: HandOffMember;
  readonly lines: readonly HandOffLine[];
  readonly isOut: boolean;
  readonly people: readonly string[];
  /** Those that are chosen. */
  readonly configurations: readonly string[];
  readonly onOut: (isOut: boolean) => void;
  readonly onPerson: (line: HandOffLine, person: string) => void;
}

function Line({ member, lines, isOut, people, configurations, onOut, onPerson }: LineProps) {
  const { project } = useFrame();
  const nameOf = useConfigurationName();
  const { of, title, instances, minutes, execution, runsIn, doubts } = member;
  const where = lines.length === 0 || lines.length === configurations.length ? '' : whereWords(runsIn, configurations, nameOf);
  const cannot = doubts.some(leavesOut);
  return (
    <li className={`grid grid-cols-[1.5rem_3.5rem_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-rule py-1.5 ${isOut ? 'text-ink2' : ''}`}>
      <input type="checkbox" className="translate-y-0.5" aria-label={`Hand off ${of}`} checked={!isOut} disabled={cannot} onChange={(event) => onOut(!event.target.checked)} />
      <Link className="font-mono text-xs underline decoration-rule2" to={address.covering(project, of)}>{of}</Link>
      <span className="min-w-0">
        <span className={`break-words ${isOut ? 'line-through' : ''}`}>{title}</span>
        <span className="ml-2 whitespace-nowrap text-xs text-ink2">
          {countOf(instances, 'instance')}
          {minutes !== null && `, ${durationOf(minutes * instances)}`}
          {where !== '' && `, ${where}`}
        </span>
        {!isOut && lines.length === 0 && <span className="block text-xs text-ochre-ink">runs in none of the chosen configurations: not executed</span>}
        {doubts.length > 0 && <span className="block text-xs text-ochre-ink">{doubts.map(doubtWords).join(' · ')}</span>}
      </span>
      <span className="flex flex-col items-end gap-1">
        {!isOut && execution === 'automated' && <span className="text-xs text-ink2">automated</span>}
        {!isOut && execution === 'byHand' && people.length > 0 && lines.map((line) => <Person key={lineKey(line)} line={line} people={people} where={configurations.length > 1 && line.configuration !== null ? nameOf(line.configuration) : ''} onPerson={onPerson} />)}
      </span>
    </li>
  );
}

/** `where`: in which configuration; empty: that is said already. */
function Person({ line, people, where, onPerson }: { readonly line: HandOffLine; readonly people: readonly string[]; readonly where: string; readonly onPerson: LineProps['onPerson'] }) {
  const names = people.includes(line.person) || line.person === '' ? people : [...people, line.person];
  return (
    <span className="inline-flex items-center gap-1.5 text-xs text-ink2">
      {where}
      <Choose label={`Who executes ${line.of}${where === '' ? '' : `, ${where}`}`} value={line.person} options={[...names.map((name) => ({ value: name, name })), { value: '', name: 'nobody' }]} onChange={(person) => onPerson(line, person)} />
    </span>
  );
}
