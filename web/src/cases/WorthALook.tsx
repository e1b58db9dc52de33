import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import { caseProblems, expects, isUse, looksAt, withActionsSplit, type CaseContent, type Look, type Row, type RowId, type StepId } from '@caderno/core/cases';
import { unrefusedRows, untoldRows, type ConditionCoverage, type DesignCondition, type UnrefusedRow, type Untold as UntoldReason } from '@caderno/core/coverage';
import { allRows, rowsToRun, type Constants } from '@caderno/core/shared';
import { memo, useMemo, useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useAlike, useSettings, useSummaries } from '../api/index.ts';
import { MarginNote } from '../artefacts/index.ts';
import { untoldWords } from '../liveCoverage/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { TextButton, countOf } from '../look/index.ts';
import { newStepId, type StepsOpened } from '../steps/index.ts';
import type { Editing } from '../versions/index.ts';
import { caseProblemSentence } from './caseProblemSentence.ts';

interface Props {
  readonly id: CaseId;
  readonly content: CaseContent;
  readonly opened: StepsOpened;
  readonly surfaced: ReadonlySet<string>;
  readonly constants: Constants;
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly canEdit: boolean;
  readonly update: Editing<CaseContent>['update'];
  readonly onChoose: (row: RowId) => void;
  readonly onTakeOut: (steps: readonly StepId[]) => void;
}

const MOST_NOTES = 6;

/** What deserves a second look, each with its place, the reason and, where there is one, the mend. */
export const WorthALook = memo(function WorthALook(props: Props) {
  const { content, opened, surfaced, constants, canEdit } = props;
  const [all, setAll] = useState(false);
  const problems = caseProblems({ ...content, rows: allRows(content, opened.library) }, surfaced, new Set(constants.keys())).filter((p) => p.code !== 'parameter_unused');
  const looks = useLooks(props);
  const rows = useUnrefused(props);
  const untold = useUntold(props);
  const alike = useAlikeOf(props);
  const notes: { readonly key: string; readonly note: ReactNode }[] = [
    ...problems.map((problem) => ({ key: JSON.stringify(problem), note: caseProblemSentence(problem) })),
    ...untold.map((u) => ({ key: `untold ${u.condition}`, note: <UntoldNote untold={u} onChoose={props.onChoose} /> })),
    ...rows.map((row) => ({ key: row.row, note: <RowNote row={row} onChoose={props.onChoose} /> })),
    ...looks.map((look) => ({ key: JSON.stringify(look), note: <LookNote look={look} canEdit={canEdit} content={content} update={props.update} /> })),
    ...alike,
  ];
  if (notes.length === 0) return null;
  return (
    <MarginNote title="Hints">
      <ul className="space-y-1.5">
        {notes.slice(0, all ? notes.length : MOST_NOTES).map(({ key, note }) => (
          <li key={key}>{note}</li>
        ))}
      </ul>
      {notes.length > MOST_NOTES && !all && <TextButton onClick={() => setAll(true)}>and {notes.length - MOST_NOTES} more</TextButton>}
    </MarginNote>
  );
});

function useOff() {
  const { project } = useFrame();
  return useSettings(project).data?.settings.looksOff;
}

function useLooks({ id, content, opened, surfaced }: Props): readonly Look[] {
  const { project } = useFrame();
  const off = useOff();
  const cases = useSummaries(project, 'case').data;
  return useMemo(() => {
    if (off === undefined) return [];
    const neighbours = (cases ?? []).filter((c) => c.module === content.module && c.id !== id && c.steps > 0).map((c) => c.steps);
    const usesExpect = opened.opened.kind === 'opened' && opened.opened.steps.some((line) => line.kind === 'step' && expects(line.step));
    return looksAt(content, { surfaced, usesExpect, neighbours, off });
  }, [cases, content, id, off, opened, surfaced]);
}

function useUnrefused({ id, content, opened: { library }, coverages }: Props): readonly UnrefusedRow[] {
  const off = useOff();
  return useMemo(() => (off === undefined || off.includes('invalidRowUnrefused') ? [] : unrefusedRows(id, content, rowsToRun(content, library), coverages.values())), [content, coverages, id, library, off]);
}

interface Untold {
  readonly condition: ConditionId;
  readonly why: UntoldReason;
  readonly rows: readonly Row[];
}

/** The conditions that are only linked because nobody could tell. What shared steps expect is not looked into here. */
function useUntold({ content, opened: { library }, conditions }: Props): readonly Untold[] {
  const off = useOff();
  return useMemo(() => {
    if (off === undefined || off.includes('nothingTold') || content.steps.some(isUse)) return [];
    const rows = rowsToRun(content, library).flatMap((row) => row ?? []);
    return content.covers.flatMap((cover): Untold[] => {
      const condition = conditions.get(cover.id);
      const untold = condition === undefined ? [] : untoldRows(content, rows, cover, condition.content);
      const [first] = untold;
      return first === undefined ? [] : [{ condition: cover.id, why: first.why, rows: untold.flatMap((u) => u.row ?? []) }];
    });
  }, [conditions, content, library, off]);
}

function UntoldNote({ untold: { condition, why, rows }, onChoose }: { readonly untold: Untold; readonly onChoose: (row: RowId) => void }) {
  const [first] = rows;
  return (
    <>
      <span className="font-mono">{condition}</span> is only linked{why === 'emptyInRow' && first !== undefined && <> in row <TextButton data-on-paper onClick={() => onChoose(first.id)}>{first.name || '(unnamed)'}</TextButton>{rows.length > 1 && ` and ${rows.length - 1} more`}</>}: {untoldWords(why)}
    </>
  );
}

function RowNote({ row: { row, rowName, like }, onChoose }: { readonly row: UnrefusedRow; readonly onChoose: (row: RowId) => void }) {
  return (
    <>
      Row <TextButton data-on-paper onClick={() => onChoose(row)}>{rowName || '(unnamed)'}</TextButton> shows something invalid, and the same is expected as in row {like || '(unnamed)'}. Say how it is refused.
    </>
  );
}

interface LookProps {
  readonly look: Look;
  readonly content: CaseContent;
  readonly canEdit: boolean;
  readonly update: Props['update'];
}

function LookNote({ look, content, canEdit, update }: LookProps) {
  const numberOf = (step: StepId): number => content.steps.findIndex((s) => s.id === step) + 1;
  switch (look.rule) {
    case 'noExpectedResult':
      return <>No step says what is expected: nobody could tell whether it passes. Tab in a step adds it.</>;
    case 'severalActions': {
      // Made once, outside the update, which may run twice.
      const ids = look.actions.map(newStepId);
      const split = (): void => {
        update((c) => {
          let next = 0;
          return withActionsSplit(c, look.step, look.actions, () => ids[next++] ?? newStepId());
        });
      };
      return (
        <>
          Step {numberOf(look.step)} does {countOf(look.actions.length, 'thing')}. {canEdit && <TextButton onClick={split}>make it {countOf(look.actions.length, 'step')}</TextButton>}
        </>
      );
    }
    case 'hiddenExpectation':
      return (
        <>
          Step {numberOf(look.step)} hides what is expected: “{short(look.words)}”.{' '}
          {canEdit && <TextButton onClick={() => update((c) => ({ ...c, steps: c.steps.map((s) => (s.id === look.step && s.kind === 'step' ? { ...s, ...look.mended } : s)) }))}>put it after ⇒</TextButton>}
        </>
      );
    case 'vagueWording':
      return (
        <>
          Step {numberOf(look.step)}: “{short(look.words)}” means something else to everybody. Say how much, or what is seen.
        </>
      );
    case 'unusedParameter':
      return (
        <>
          <span className="cad-parameter">{`<${look.name}>`}</span> is declared and stands in no text.
        </>
      );
    case 'muchLonger':
      return (
        <>
          {countOf(look.steps, 'step')}, where cases of its module usually have {look.usual}. Select steps to take them out into shared steps, or split the case.
        </>
      );
  }
}

const LONGEST_QUOTE = 60;

function short(words: string): string {
  return words.length > LONGEST_QUOTE ? `${words.slice(0, LONGEST_QUOTE)}…` : words;
}

/** Cases nearly like this one, and runs of its steps that stand elsewhere too. */
function useAlikeOf({ id, content, canEdit, onTakeOut }: Props): { readonly key: string; readonly note: ReactNode }[] {
  const { project } = useFrame();
  const off = useOff() ?? ['alikeCase', 'alikeRun'];
  const { runs = [], cases = [] } = useAlike(project).data ?? {};
  const there = new Set<string>(content.steps.map((s) => s.id));
  const pairs = off.includes('alikeCase') ? [] : cases.flatMap((pair) => (pair.first === id ? [{ ...pair, other: pair.second }] : pair.second === id ? [{ ...pair, other: pair.first }] : []));
  const own = off.includes('alikeRun') ? [] : runs.flatMap((run) => run.places.filter((p) => p.id === id && p.steps.every((s) => there.has(s))).slice(0, 1).map((place) => ({ place, others: new Set(run.places.filter((p) => p.id !== id).map((p) => p.id)) })));
  return [
    ...pairs.map(({ other, likeness }) => ({
      key: `case ${other}`,
      note: (
        <>
          <Link className="font-mono underline decoration-rule2" to={address.cases(project, other)}>
            {other}
          </Link>{' '}
          has {Math.round(likeness * 100)} % of its steps in common. They may be one case with a row for each.
        </>
      ),
    })),
    ...own.map(({ place, others }) => ({
      key: `run ${place.steps.join(' ')}`,
      note: (
        <>
          {countOf(place.steps.length, 'step')} from step {content.steps.findIndex((s) => s.id === place.steps[0]) + 1} on {others.size > 0 ? `stand nearly alike in ${[...others].slice(0, 3).join(', ')}${others.size > 3 ? ` and ${others.size - 3} more` : ''}` : 'stand in it twice'}.{' '}
          {canEdit && <TextButton onClick={() => onTakeOut(place.steps)}>take them out</TextButton>}
        </>
      ),
    })),
  ];
}
