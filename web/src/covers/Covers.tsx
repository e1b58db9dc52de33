import { isSuspect, type ArtefactId, type ConditionId } from '@caderno/core/artefacts';
import { expects as saysWhatIsExpected, newCover, type CaseContent, type Cover, type ParameterId, type StepId } from '@caderno/core/cases';
import { carriedFields } from '@caderno/core/conditions';
import type { DesignCondition } from '@caderno/core/coverage';
import { countStandings, itemsToShow, type ConditionCoverage } from '@caderno/core/coverage';
import { memo, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useSummaries } from '../api/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Dialog, Button, MODEL_WORD, TextButton, Labelled, Select, TickIn } from '../look/index.ts';
import { PickArtefact, Ticks, useStillRight } from '../artefacts/index.ts';
import { EventChoice } from './EventChoice.tsx';

interface Props {
  /** The artefact that holds the links: the case, or the feature of the scenario. */
  readonly id: ArtefactId;
  readonly of: Covering;
  readonly content: CaseContent;
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly canEdit: boolean;
  readonly update: (change: (content: CaseContent) => CaseContent) => void;
  /** Null: no rows are made from here. */
  readonly onFill: ((id: ConditionId) => void) | null;
}

/** What covers, in words. */
type Covering = 'case' | 'scenario';

/** The conditions a case or a scenario covers, what of each is shown, and what carries what. */
export const Covers = memo(function Covers({ id, of, content, conditions, coverages, canEdit, update, onFill }: Props) {
  const { project } = useFrame();
  const known = useSummaries(project, 'condition').data;
  const ids = useMemo(() => (known === undefined ? null : new Set(known.map((k) => k.id))), [known]);
  const stillRight = useStillRight();
  const [mapping, setMapping] = useState<ConditionId | null>(null);
  const set = (id: ConditionId, part: Partial<Cover>): void => update((c) => ({ ...c, covers: c.covers.map((x) => (x.id === id ? { ...x, ...part } : x)) }));
  const open = content.covers.find((c) => c.id === mapping);
  return (
    <>
      <ul className="space-y-2.5">
        {content.covers.map((cover) => (
          <CoverLine
            key={cover.id}
            cover={cover}
            of={of}
            condition={conditions.get(cover.id)}
            coverage={coverages.get(cover.id)}
            isHere={ids === null || ids.has(cover.id)}
            canEdit={canEdit}
            onMap={() => setMapping(cover.id)}
            onFill={onFill === null ? null : () => onFill(cover.id)}
            onStillRight={(now) => stillRight([{ from: id, to: cover.id, now }])}
            onRemove={() => update((c) => ({ ...c, covers: c.covers.filter((x) => x.id !== cover.id) }))}
          />
        ))}
      </ul>
      {content.covers.length === 0 && <p>Nothing yet<span className="print:hidden">: link the conditions it is to show</span>.</p>}
      {canEdit && <LinkCondition covered={content.covers.map((c) => c.id)} onLink={(cover) => update((c) => ({ ...c, covers: [...c.covers, cover] }))} />}
      {open !== undefined && <Mapping of={of} content={content} cover={open} condition={conditions.get(open.id)} onChange={(part) => set(open.id, part)} onClose={() => setMapping(null)} />}
    </>
  );
});

interface LineProps {
  readonly of: Covering;
  readonly cover: Cover;
  readonly condition: DesignCondition | undefined;
  readonly coverage: ConditionCoverage | undefined;
  /** Of a part of a project, or of what is agreed, the condition may be left out. */
  readonly isHere: boolean;
  readonly canEdit: boolean;
  readonly onMap: () => void;
  readonly onFill: (() => void) | null;
  readonly onStillRight: (seenVersion: number) => void;
  readonly onRemove: () => void;
}

function CoverLine({ of, cover, condition, coverage, isHere, canEdit, onMap, onFill, onStillRight, onRemove }: LineProps) {
  const { project, isPast } = useFrame();
  const counts = countStandings(coverage?.items.map((i) => i.standing) ?? []);
  const model = condition?.content.model;
  const isCarried = model !== undefined && carriedFields(model).length > 0;
  const isPath = model?.kind === 'stateTransitions';
  const unmapped = isPath ? cover.events.length === 0 : isCarried ? cover.fields.length === 0 : cover.expects.length === 0;
  const missing = counts.gap + counts.linked;
  const suspect = condition !== undefined && isSuspect(cover, condition);
  const unlink = (
    <TextButton onClick={onRemove} aria-label={`Unlink ${cover.id}`}>
      unlink
    </TextButton>
  );
  if (!isHere) {
    return (
      <li>
        <span className="font-mono text-xs">{cover.id}</span> {isPast ? 'is not among what you see here.' : 'is no longer in the project.'} {canEdit && unlink}
      </li>
    );
  }
  return (
    <li>
      <Link to={address.condition(project, cover.id)} className="text-sm text-ink hover:underline">
        <span className="font-mono text-xs">{cover.id}</span> {condition?.content.title}
      </Link>
      <span className="block">
        {condition?.content.requirements.map((requirement) => (
          <Link key={requirement.id} to={address.basis(project, requirement.id)} className="mr-2 inline-block min-h-6 font-mono text-xs hover:underline">
            {requirement.id}
          </Link>
        ))}
      </span>
      <div className="flex min-h-5 items-center gap-1.5">
        <Ticks conditions={[{ id: cover.id, standings: coverage?.items.map((i) => i.standing) ?? [] }]} most={18} />
        <span className="ml-auto whitespace-nowrap">
          {coverage === undefined ? 'counting …' : `${counts.shown} of ${itemsToShow(counts)}`}
        </span>
      </div>
      {suspect && (
        <p className="text-brick">
          It moved to v{condition.version} after you linked v{cover.seenVersion}.{' '}
          <Link className="underline" to={`${address.versions(project, cover.id)}?from=${cover.seenVersion}&to=${condition.version}`}>
            Compare
          </Link>
          {canEdit && (
            <>
              {' '}
              · <TextButton onClick={() => onStillRight(condition.version)}>Still right</TextButton>
            </>
          )}
        </p>
      )}
      {canEdit && (
        <p className="flex flex-wrap gap-x-2.5">
          <TextButton onClick={onMap} className={unmapped ? 'font-semibold text-brick' : ''}>
            {isPath ? (unmapped ? 'Choose the steps that are events' : 'Steps that are events') : isCarried ? (unmapped ? `Choose the ${CARRIERS[of]} it uses` : `${of === 'case' ? 'Parameters' : 'Values'} it uses`) : unmapped ? 'Choose the step that shows it' : 'Steps that show it'}
          </TextButton>
          {isCarried && missing > 0 && onFill !== null && (
            <TextButton className="font-semibold text-blue" onClick={onFill}>
              Generate rows for the {missing} missing
            </TextButton>
          )}
          {unlink}
        </p>
      )}
    </li>
  );
}

const CARRIERS: Record<Covering, string> = { case: 'parameters', scenario: 'values' };

function LinkCondition({ covered, onLink }: { readonly covered: readonly ConditionId[]; readonly onLink: (cover: Cover) => void }) {
  const { project } = useFrame();
  const conditions = useSummaries(project, 'condition').data ?? [];
  const offered = conditions.filter((c) => !covered.includes(c.id)).map((c) => ({ id: c.id, title: c.title, aside: MODEL_WORD[c.model] }));
  const link = (id: ConditionId): void => {
    const chosen = conditions.find((c) => c.id === id);
    if (chosen !== undefined) onLink(newCover(chosen.id, chosen.version));
  };
  return <PickArtefact label="Link a condition" placeholder="Link a condition …" offered={offered} onPick={link} className="mt-2.5 !text-xs" />;
}

interface MappingProps {
  readonly of: Covering;
  readonly content: CaseContent;
  readonly cover: Cover;
  readonly condition: DesignCondition | undefined;
  readonly onChange: (part: Partial<Cover>) => void;
  readonly onClose: () => void;
}

/** Says which parameter carries which field, which steps are events, or which expected results speak for a plain condition. */
function Mapping({ of, content, cover, condition, onChange, onClose }: MappingProps) {
  const model = condition?.content.model;
  return (
    <Dialog title={`How this ${of} covers ${cover.id} ${condition?.content.title ?? ''}`} keepsAtOnce onClose={onClose}>
      {model?.kind === 'stateTransitions' ? (
        <EventChoice model={model} content={content} cover={cover} onChange={onChange} />
      ) : model !== undefined && carriedFields(model).length > 0 ? (
        <div className="space-y-3">
          {carriedFields(model).map((field) => (
            <ParameterChoice
              key={field.id}
              label={`${field.name} is carried by`}
              of={of}
              content={content}
              value={cover.fields.find((f) => f.id === field.id)?.parameter ?? null}
              onChange={(parameter) => onChange({ fields: [...cover.fields.filter((f) => f.id !== field.id), ...(parameter === null ? [] : [{ id: field.id, parameter }])] })}
            />
          ))}
          <ParameterChoice of={of} label={of === 'case' ? 'Rows that are made put the outcome into' : 'What is expected stands in'} content={content} value={cover.outcome} onChange={(outcome) => onChange({ outcome })} />
          {content.parameters.length === 0 && <p className="text-sm text-ink2">{of === 'case' ? 'The case has no parameters yet. Filling the gap makes one for each field.' : 'The scenario has no values yet: write some into its steps, or columns of examples.'}</p>}
        </div>
      ) : (
        <ExpectedChoice content={content} expects={cover.expects} onChange={(expects) => onChange({ expects })} />
      )}
      <Button className="mt-5" onClick={onClose}>
        Done
      </Button>
    </Dialog>
  );
}

function ParameterChoice({ of, label, content, value, onChange }: { readonly of: Covering; readonly label: string; readonly content: CaseContent; readonly value: ParameterId | null; readonly onChange: (parameter: ParameterId | null) => void }) {
  return (
    <Labelled label={label} className="text-sm">
      <Select
        className="w-full font-mono"
        value={value ?? ''}
        options={[{ value: '', name: '(nothing)' }, ...content.parameters.map((p) => ({ value: p.id, name: of === 'scenario' && p.default !== '' ? `${p.default}, in ${p.name}` : `<${p.name}>` }))]}
        onChange={(parameter) => onChange(parameter === '' ? null : parameter)}
      />
    </Labelled>
  );
}

function ExpectedChoice({ content, expects, onChange }: { readonly content: CaseContent; readonly expects: readonly StepId[]; readonly onChange: (expects: StepId[]) => void }) {
  const steps = content.steps.map((step, i) => ({ step, number: i + 1 })).filter(({ step }) => saysWhatIsExpected(step));
  if (steps.length === 0) return <p className="text-ink2">No step has an expected result yet. Write one, then name it here: that is what shows the condition.</p>;
  return (
    <fieldset>
      <legend className="mb-2 text-sm">The condition is shown by what is expected in</legend>
      {steps.map(({ step, number }) => (
        <TickIn key={step.id} atTop item={step.id} of={expects} onChange={(chosen) => onChange([...chosen])} className="border-t border-rule py-1">
          <span>
            <span className="font-mono text-xs text-ink2">{number}</span> <span className="text-pine">⇒ {step.kind === 'step' && step.expected}</span>
          </span>
        </TickIn>
      ))}
    </fieldset>
  );
}
