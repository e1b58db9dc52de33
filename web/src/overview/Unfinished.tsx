import type { ArtefactId, ArtefactKind } from '@caderno/core/artefacts';
import { unanalysedRows } from '@caderno/core/coverage';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useCoverage, useCoverageRows, useItems, useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { RISK_WORD, STANDING_WORD, Section, StandingShape, countOf } from '../look/index.ts';

const MOST = 6;

/** What is still to be done with artefacts of some kinds, the first of it. */
export function Unfinished({ kinds }: { readonly kinds: readonly ArtefactKind[] }) {
  return (
    <>
      {kinds.includes('requirement') && <NotAnalysed />}
      {kinds.includes('condition') && <NotShown />}
      {kinds.includes('case') && <ShowNothing />}
    </>
  );
}

function NotAnalysed() {
  const { project } = useFrame();
  const report = useCoverage(project).data;
  const found = report === undefined ? [] : unanalysedRows(report);
  if (found.length === 0) return null;
  return (
    <List title="Not analysed yet" aside={countOf(found.length, 'requirement')} all={found.length > MOST ? `${address.coverage(project)}?list=unanalysed` : null}>
      {found.slice(0, MOST).map((r) => (
        <Line key={r.id} id={r.id} title={r.title} to={address.conditions(project, r.id)} note={RISK_WORD[r.risk]} />
      ))}
    </List>
  );
}

function NotShown() {
  const { project } = useFrame();
  const found = useItems(project, { standing: 'gap,linked,suspect', limit: MOST }).data;
  if (found === undefined || found.total === 0) return null;
  return (
    <List title="Not yet shown" aside={countOf(found.total, 'item')} all={found.total > MOST ? `${address.coverage(project)}?standing=gap,linked,suspect` : null}>
      {found.items.map((item) => (
        <Line
          key={`${item.condition} ${item.item.key}`}
          id={item.condition}
          title={item.item.kind === 'condition' ? item.conditionTitle : `${item.conditionTitle}: ${item.item.name}`}
          to={`${address.condition(project, item.condition)}#item-${item.item.number}`}
          note={<span title={STANDING_WORD[item.standing]}><StandingShape standing={item.standing} /> {STANDING_WORD[item.standing]}</span>}
        />
      ))}
    </List>
  );
}

function ShowNothing() {
  const { project } = useFrame();
  const rows = useCoverageRows(project);
  const cases = useSummaries(project, 'case').data;
  if (rows === null || cases === undefined) return null;
  const found = cases.filter((c) => rows.mark(c) !== 'shows');
  if (found.length === 0) return null;
  return (
    <List title="Show nothing yet" aside={countOf(found.length, 'case')} all={null}>
      {found.slice(0, MOST).map((c) => (
        <Line key={c.id} id={c.id} title={c.title} to={address.cases(project, c.id)} note={rows.mark(c) === 'linked' ? 'linked only: no expected result speaks for it' : 'covers no condition'} />
      ))}
    </List>
  );
}

function List({ title, aside, all, children }: { readonly title: string; readonly aside: string; readonly all: string | null; readonly children: ReactNode }) {
  return (
    <Section title={title} aside={aside} actions={all !== null && <Link className="underline decoration-rule2" to={all}>Show all</Link>}>
      <ul>{children}</ul>
    </Section>
  );
}

function Line({ id, title, to, note }: { readonly id: ArtefactId; readonly title: string; readonly to: string; readonly note: ReactNode }) {
  return (
    <li className="flex items-baseline gap-3 border-b border-rule py-1.5">
      <span className="w-10 shrink-0 font-mono text-xs text-ink2">{id}</span>
      <Link className="min-w-0 flex-1 hover:underline" to={to}>
        {title}
      </Link>
      <span className="shrink-0 text-xs text-ink2">{note}</span>
    </li>
  );
}
