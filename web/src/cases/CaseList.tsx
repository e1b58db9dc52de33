import { priorityNamed, type ArtefactId, type CaseId } from '@caderno/core/artefacts';
import { markOf, type CaseMark, type Standing } from '@caderno/core/coverage';
import { leavesOf, parseQuery } from '@caderno/core/find';
import { useMemo, type ReactNode } from 'react';
import { useCoverageRows, useListProject, useModules, useSummaries, type ListedHead, type RowsKnown } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { ListPage, type LineLook, type Listing } from '../listing/index.ts';
import { STATE_WORD, StandingShape, countOf, locale } from '../look/index.ts';
import { DraggableUse } from '../steps/index.ts';
import { CaseFiles } from './CaseFiles.tsx';
import { CaseActions } from './CaseActions.tsx';

interface Props {
  readonly listing: Listing<'case'>;
  readonly current: CaseId | null;
  readonly onNew: () => void;
  /** What stands above the list. */
  readonly heading: ReactNode;
}

const MARK: Record<CaseMark, { readonly standing: Standing; readonly word: string }> = {
  shows: { standing: 'shown', word: 'shows items' },
  linked: { standing: 'linked', word: 'linked, shows nothing yet' },
  nothing: { standing: 'gap', word: 'covers nothing' },
};

/** The index of cases. */
export function CaseList({ listing, current, onNew, heading }: Props) {
  const { project, canEdit } = useFrame();
  const known = useCoverageRows(project);
  const absent = useAbsent(project, listing.view.query);
  const look = useMemo<LineLook<'case'>>(
    () => ({
      notes: (listed) => notesOf(listed, known),
      mark: ({ head, shows }) => (known === null ? null : <Mark mark={markOf(head, { kind: 'case', id: head.id, shows: shows === true, counts: null })} />),
      groupNote: (members) => countOf(members.reduce((n, listed) => n + (listed.instances ?? 0), 0), 'instance'),
      wrap: (listed, line) => (
        <DraggableUse id={listed.head.id} enabled={canEdit}>
          {line}
        </DraggableUse>
      ),
    }),
    [canEdit, known],
  );
  return (
    <ListPage
      kind="case"
      listing={listing}
      current={current}
      heading={heading}
      look={look}
      onNew={onNew}
      absent={absent}
      more={<CaseFiles listing={listing} />}
      actions={(chosen, onDone) => <CaseActions chosen={chosen.map((listed) => listed.head.id)} onDone={onDone} />}
    />
  );
}

function Mark({ mark }: { readonly mark: CaseMark }) {
  return (
    <span className="pt-0.5" title={MARK[mark].word}>
      <StandingShape standing={MARK[mark].standing} />
      <span className="sr-only">{MARK[mark].word}</span>
    </span>
  );
}

/** What the query names and the project does not have. */
function useAbsent(project: string, query: string): string[] {
  const { fields, priorities } = useListProject(project);
  const asked = leavesOf(parseQuery(query, fields).root).flatMap((leaf) => (leaf.kind === 'field' ? [leaf] : []));
  const valuesOf = (field: string): string[] => asked.flatMap((leaf) => (leaf.field === field ? [leaf.value] : []));
  const conditions = useSummaries(project, 'condition', 'state:any').data;
  const modules = useModules(project);
  const isThere = (id: string): boolean => conditions?.some((c: { readonly id: ArtefactId }) => c.id === id) ?? true;
  return [
    ...valuesOf('covers').flatMap((id) => (isThere(id.toUpperCase()) ? [] : [`There is no condition ${id.toUpperCase()}.`])),
    ...valuesOf('priority').flatMap((name) => (priorityNamed(name, priorities) === null ? [`No priority is called “${name}”.`] : [])),
    ...(conditions === undefined ? [] : valuesOf('module').flatMap((name) => (modules.some((m) => m.toLowerCase().includes(name.toLowerCase())) ? [] : [`No module is called “${name}”.`]))),
  ];
}

function notesOf({ head: summary, instances = 1 }: ListedHead<'case'>, known: RowsKnown | null): string[] {
  const counts = known?.counts(summary.id);
  return [
    `${countOf(summary.steps, 'step')}${counts === undefined || counts.steps === summary.steps ? '' : `, ${counts.steps.toLocaleString(locale())} opened`}`,
    summary.dataSet !== null ? `rows of ${summary.dataSet}${summary.rows > 0 ? ` and ${summary.rows} more` : ''}` : summary.rows > 0 ? countOf(summary.rows, 'row') : 'no rows',
    ...(instances === 0 ? ['none runs'] : instances !== Math.max(1, summary.rows) ? [countOf(instances, 'instance')] : []),
    ...(summary.estimate === null ? [] : [`${(summary.estimate * instances).toLocaleString(locale())} min`]),
    ...(summary.state === 'draft' ? [] : [STATE_WORD[summary.state].toLowerCase()]),
    ...(summary.caseKind === 'charter' ? ['charter'] : []),
    ...(summary.execution === 'automated' ? ['automated'] : []),
    ...summary.tags,
  ];
}
