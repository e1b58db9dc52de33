import { isSuspect, type CaseId } from '@caderno/core/artefacts';
import type { Row } from '@caderno/core/cases';
import { eventWords, stateName, type CoverageItem, type StateTransitionsModel, type WalkStep } from '@caderno/core/conditions';
import { derivationOf, rowRefusal, shownIn, shows, type ConditionCoverage, type Derivation, type Design, type DesignCase, type DesignCondition, type DerivedValue, type ItemCoverage, type RowRefusal } from '@caderno/core/coverage';
import { Link } from 'react-router';
import { untoldWords } from '../liveCoverage/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, STANDING_WORD, StandingShape, countOf } from '../look/index.ts';

interface Props {
  readonly condition: DesignCondition;
  readonly design: Design;
  readonly coverage: ConditionCoverage;
  readonly item: ItemCoverage;
  readonly onClose: () => void;
}

const MOST_INSTANCES = 12;

/** The whole derivation of an item's standing, in words: what is asked, who shows it and how, and what is trusted. */
export function Why({ condition, design, coverage, item: { item, standing, leftOut, instances }, onClose }: Props) {
  const place = coverage.items.findIndex((i) => i.item.key === item.key);
  const showing = coverage.evidence.flatMap((e) => e.rows.flatMap((row, i) => (shows(e.shown, i, place) ? [{ id: e.case, row, through: e.through }] : [])));
  return (
    <Dialog title={`${condition.id}/${item.number} ${item.name}`} onClose={onClose} wide>
      <p className="flex items-center gap-2">
        <StandingShape standing={standing} /> <strong>{STANDING_WORD[standing]}</strong> <span className="text-ink2">{item.extent}</span>
      </p>
      <ol className="mt-3 list-decimal space-y-2 pl-5 text-sm">
        <li>{asked(condition, item)}</li>
        {leftOut !== null && (
          <li>
            {leftOut.by} left it out on {leftOut.at.slice(0, 10)}: {leftOut.reason}. That comes before everything else.
          </li>
        )}
        {standing === 'waiting' && <li>An open question bears on it. Until it is answered the item counts as waiting, whatever shows it.</li>}
        {coverage.cases.length === 0 && <li>No case covers {condition.id}.</li>}
        {coverage.cases.length > 0 && showing.length === 0 && <NothingShows condition={condition} design={design} coverage={coverage} />}
        {showing.slice(0, MOST_INSTANCES).map(({ id, row, through }) => (
          <Instance key={`${id} ${row?.id ?? ''}`} condition={condition} testCase={design.cases.find((c) => c.id === id)} row={row} through={through} item={item} />
        ))}
        {instances > MOST_INSTANCES && <li className="list-none text-ink2">and {countOf(instances - MOST_INSTANCES, 'more instance')}</li>}
        {showing.length > 0 && <Trust condition={condition} design={design} cases={[...new Set(showing.flatMap((s) => [s.id, ...s.through]))]} />}
      </ol>
      <Button className="mt-5" onClick={onClose}>
        Done
      </Button>
    </Dialog>
  );
}

function asked({ id, content }: DesignCondition, item: CoverageItem): string {
  const head = `${id} “${content.title}” asks for it`;
  switch (item.kind) {
    case 'condition':
      return `${head} as a whole: a case has to name a step whose expected result speaks for it.`;
    case 'partition':
    case 'class':
    case 'boundary':
      return `${head}: a row has to give a value that is ${item.kind === 'boundary' ? 'exactly' : 'in'} ${item.extent || item.name}. ${item.valid ? '' : 'It is invalid, so it has to be the only invalid value of its row.'}`;
    case 'rule':
      return `${head}: the values of a row have to select this rule.`;
    case 'state':
    case 'transition':
    case 'sequence':
      return `${head}: the events of a case’s steps have to lead through it.`;
    case 'invalidPair':
      return `${head}: a case has to end with this event, in this state.`;
    case 'tuple':
      return `${head}: a row has to hold these values together and meet all constraints.`;
    case 'invalidValue':
      return `${head}: a row has to give this invalid value, and valid ones to all other factors.`;
  }
}

function Instance({ condition, testCase, row, through, item }: { readonly condition: DesignCondition; readonly testCase: DesignCase | undefined; readonly row: Row | null; readonly through: readonly CaseId[]; readonly item: CoverageItem }) {
  const { project } = useFrame();
  const cover = testCase?.content.covers.find((c) => c.id === condition.id);
  if (testCase === undefined) return null;
  const derivation = cover === undefined ? null : derivationOf(testCase.content, cover, condition.content, row);
  return (
    <li>
      <Link to={address.covering(project, testCase.id)} className="font-mono text-xs underline decoration-rule2">
        {testCase.id}
      </Link>{' '}
      {testCase.content.title}
      {row !== null && <>, row “{row.name || 'unnamed'}”</>}: {derivation === null ? `it runs ${through.join(', ')}, which shows it with the values that reach it.` : <Derived derivation={derivation} model={condition.content.model.kind === 'stateTransitions' ? condition.content.model : null} />} That shows {item.name}.
    </li>
  );
}

function Derived({ derivation, model }: { readonly derivation: Derivation; readonly model: StateTransitionsModel | null }) {
  switch (derivation.kind) {
    case 'expectation':
      if (derivation.steps.length === 0) return <>a step of the shared steps it uses says what is expected.</>;
      return <>{derivation.steps.map((s) => `step ${s.number} expects “${s.expected}”`).join(', ')}.</>;
    case 'values':
      return <>{derivation.values.filter((v) => v.parameter !== null).map(valueWords).join(', ')}.</>;
    case 'path':
      return <>{model === null ? '' : `it begins in ${derivation.start}; ${derivation.steps.map(({ number, step }) => `step ${number}: ${walkWords(model, step)}`).join('; ')}.`}</>;
  }
}

function valueWords({ field, parameter, text, from }: DerivedValue): string {
  const value = text === null ? (from === 'missing' ? 'no value, on purpose' : 'no value') : `“${text}”`;
  return `<${parameter ?? ''}> carries ${field} and is ${value}${from === 'default' ? ', its default' : ''}`;
}

function walkWords(model: StateTransitionsModel, step: WalkStep): string {
  switch (step.kind) {
    case 'transition':
      return `${eventWords(model, step.transition)} leads to ${stateName(model, step.transition.to)}`;
    case 'refused':
      return `${eventWords(model, { event: step.event, guard: '' })} is refused in ${stateName(model, step.state)}, where the path ends`;
    case 'undecided':
      return `${eventWords(model, { event: step.event, guard: '' })} has several transitions and the step does not say which: the path ends`;
    case 'notWalked':
      return 'after the end of the path';
  }
}

const MOST_REFUSED = 5;

function NothingShows({ condition, design, coverage }: { readonly condition: DesignCondition; readonly design: Design; readonly coverage: ConditionCoverage }) {
  const refused = coverage.evidence.flatMap((e) => {
    const content = design.cases.find((c) => c.id === e.case)?.content;
    const cover = content?.covers.find((c) => c.id === condition.id);
    if (content === undefined || cover === undefined) return [];
    return e.rows.flatMap((row, i) => {
      const refusal = shownIn(e.shown, i).length > 0 ? null : rowRefusal(content, cover, condition.content, row);
      return refusal === null ? [] : [{ id: e.case, row: row?.name ?? '', refusal }];
    });
  });
  return (
    <>
      <li>
        {coverage.cases.join(', ')} {coverage.cases.length === 1 ? 'covers' : 'cover'} {condition.id}, and no instance of {coverage.cases.length === 1 ? 'it' : 'them'} shows this.
      </li>
      {refused.slice(0, MOST_REFUSED).map(({ id, row, refusal }) => (
        <li key={`${id} ${row}`} className="text-ochre-ink">
          {id} “{row || 'unnamed'}” does not count: {refusalWords(refusal)}
        </li>
      ))}
      {refused.length > MOST_REFUSED && <li className="text-ink2">and {refused.length - MOST_REFUSED} more rows do not count.</li>}
    </>
  );
}

function refusalWords(refusal: RowRefusal): string {
  switch (refusal.code) {
    case 'value_unknown':
      return `“${refusal.text}” is no value of ${refusal.field}. If it means one, add it there as another spelling.`;
    case 'constraint_broken':
      return `it breaks constraint ${refusal.constraint}.`;
    case 'invalid_together':
      return `it gives invalid values to ${refusal.fields.join(' and ')}, and one may hide the other.`;
    case 'impossible':
      return 'its values are declared impossible.';
    case 'contradiction':
      return `rules ${refusal.rules[0]} and ${refusal.rules[1]} both hold and do different things.`;
    case 'no_rule':
      return 'its values select no rule.';
    case 'untold':
      return `nobody could tell whether it passes: ${untoldWords(refusal.why)}`;
  }
}

function Trust({ condition, design, cases }: { readonly condition: DesignCondition; readonly design: Design; readonly cases: readonly string[] }) {
  const moved = condition.content.requirements.filter((link) => isSuspect(link, design.requirements.find((r) => r.id === link.id)));
  const stale = design.cases.filter((c) => cases.includes(c.id) && c.content.covers.some((cover) => cover.id === condition.id && isSuspect(cover, condition)));
  return (
    <li>
      {moved.length === 0 && stale.length === 0
        ? `Nothing it hangs on has changed in meaning since: ${condition.id} and its requirements are as they were when they were linked.`
        : [...moved.map((link) => `${link.id} has changed in meaning after ${condition.id} was derived from v${link.seenVersion}`), ...stale.map((c) => `${condition.id} has changed in meaning after ${c.id} was linked to it`)].join('; ') + ': until that is settled it counts as suspect.'}
    </li>
  );
}
