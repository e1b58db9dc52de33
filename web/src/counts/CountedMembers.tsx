import type { ArtefactId } from '@caderno/core/artefacts';
import { figureOf, groupQuery, type Listed } from '@caderno/core/listing';
import { Link } from 'react-router';
import { useListed, useOwnFields } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { KIND_NAME, countOf } from '../look/index.ts';
import { columnWord } from '../listing/index.ts';
import type { CountsSeen } from './countsView.ts';
import { figureWords, measureWord } from './countsWords.ts';
import { useNames } from './useNames.ts';

/** More are not read through here: the list has them. */
const MOST = 300;

interface Props {
  readonly seen: CountsSeen;
  readonly members: readonly Listed[];
}

/** Those whom a figure counts. */
export function CountedMembers({ seen, members }: Props) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const nameOf = useNames();
  const { kind, counts, line, column } = seen;
  const { measure } = counts;
  const place = [...(line === undefined ? [] : [nameOf(counts.down, line)]), ...(column === undefined || counts.across === null ? [] : [nameOf(counts.across, column)])];
  return (
    <div className="px-6 pb-10 pt-5">
      <h2 className="font-serif text-lg font-semibold">{place.length === 0 ? 'All of them' : place.join(', ')}</h2>
      <p role="status" className="mt-1 text-sm text-ink2">
        {countOf(members.length, ...KIND_NAME[kind])}
        {measure !== 'number' && `, ${measureWord(measure, fields).toLowerCase()}: ${figureWords(figureOf(members, measure, fields))}`} <AsList seen={seen} members={members} />
      </p>
      <ul aria-label="Counted here" className="mt-3 divide-y divide-rule border-t border-ink text-sm">
        {members.slice(0, MOST).map((listed) => (
          <li key={listed.id} className="flex min-h-7 items-baseline gap-3 py-0.5">
            <Link className="flex min-h-6 min-w-0 flex-1 items-baseline gap-3 hover:underline" to={address.artefact(project, listed.id as ArtefactId)}>
              <span className="w-12 shrink-0 font-mono text-xs text-ink2">{listed.id}</span>
              <span className="min-w-0 flex-1 break-words">{listed.title}</span>
            </Link>
            {measure !== 'number' && (
              <span className="tabular-nums" title={columnWord(measure, fields)}>
                {figureWords(figureOf([listed], measure, fields))}
              </span>
            )}
          </li>
        ))}
      </ul>
      {members.length > MOST && <p className="mt-1 text-xs text-ink2">and {countOf(members.length - MOST, 'more', 'more')}</p>}
    </div>
  );
}

/** The way to the list where they are changed together: only where a query finds exactly these. */
function AsList({ seen: { kind, query, counts, line, column }, members }: Props) {
  const { project } = useFrame();
  const fields = useOwnFields(project);
  const terms = [...(line === undefined ? [] : [groupQuery(counts.down, line, fields)]), ...(column === undefined || counts.across === null ? [] : [groupQuery(counts.across, column, fields)])];
  const asked = query.trim();
  const only = [...terms, ...(kind === 'requirement' ? ['-type:heading'] : [])];
  const whole = only.includes(null) ? null : [...(asked === '' ? [] : [only.length === 0 ? asked : `(${asked})`]), ...only].join(' ');
  const found = useListed(project, kind, whole ?? '').data;
  const theirs = new Set(found?.map((l) => l.id));
  if (whole === null || members.length === 0 || found?.length !== members.length || !members.every((l) => theirs.has(l.id))) return null;
  return (
    <Link className="ml-2 inline-flex min-h-6 items-center underline decoration-rule2 underline-offset-2 print:hidden" to={{ pathname: address.list(project, kind), search: new URLSearchParams({ query: whole }).toString() }}>
      Open as a list
    </Link>
  );
}
