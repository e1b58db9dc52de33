import type { ConditionId, RequirementId } from '@caderno/core/artefacts';
import { EMPTY_CASE } from '@caderno/core/cases';
import { placeAnchor, type ConditionContent, type ItemKey, type Model, type ModelKind, type RequirementLink } from '@caderno/core/conditions';
import { countStandings, itemsToMake, itemsToShow, percentDown, shownRatio, type ConditionCoverage, type Design, type DesignChange, type ItemCoverage } from '@caderno/core/coverage';
import type { ArtefactOfKind } from '@caderno/contract';
import { useMemo, useState } from 'react';
import { Link, useLocation, useNavigate } from 'react-router';
import { useArtefact, useDesign, useSummaries } from '../api/index.ts';
import { Defects, Loading, TitleField, useCreate, useRaiseQuestion } from '../artefacts/index.ts';
import { useLiveCoverage } from '../coverage/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { BOUNDARY_WORD, Button, Choose, MODEL_WORD, POLARITY_WORD, RISK_WORD, Section, TextButton, countOf, options } from '../look/index.ts';
import { Observations } from '../questions/index.ts';
import { SaveBar, useEditing, type Editing } from '../versions/index.ts';
import { AddToCase } from './AddToCase.tsx';
import { ItemList } from './ItemList.tsx';
import { NumberLine } from './NumberLine.tsx';
import { RangesEditor } from './RangesEditor.tsx';
import { newModel } from './newParts.ts';

interface Props {
  readonly id: ConditionId;
  readonly requirementTexts: ReadonlyMap<RequirementId, string>;
}

/** A condition: its model, drawn, and what has to be shown. */
export function ConditionPage({ id, requirementTexts }: Props) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'condition', id);
  return data === undefined ? <Loading error={error} /> : <Condition key={id} artefact={data} requirementTexts={requirementTexts} />;
}

function Condition({ artefact, requirementTexts }: { readonly artefact: ArtefactOfKind<'condition'>; readonly requirementTexts: Props['requirementTexts'] }) {
  const { project, canEdit } = useFrame();
  const editing = useEditing('condition', artefact);
  const { content, update } = editing;
  const { id, state, author, at, version, meaningSince } = artefact.summary;
  const justMade = (useLocation().state as { made?: boolean } | null)?.made === true;
  const raise = useRaiseQuestion();
  const [editsRanges, setEditsRanges] = useState(false);
  const [adding, setAdding] = useState<readonly ItemKey[] | null>(null);
  const design = useDesign(project, { condition: id }).data;
  const change = useMemo<DesignChange>(() => ({ kind: 'condition', id, condition: { id, state, version, meaningSince, content } }), [content, id, meaningSince, state, version]);
  const coverage = useLiveCoverage(design, change).get(id);
  const model = content.model;
  return (
    <article className="px-7 pb-16 pt-5">
      <Origin id={id} content={content} texts={requirementTexts} />
      <TitleField label={`Title of ${id}`} value={content.title} readOnly={!canEdit} onChange={(title) => update((c) => ({ ...c, title }))} focus={justMade} />
      <Choices content={content} canEdit={canEdit} update={update} onRanges={() => setEditsRanges(true)} />
      <div className="mt-3">
        <SaveBar id={id} state={state} author={author} at={at} editing={editing} />
      </div>
      <SuspectLinks content={content} canEdit={canEdit} update={update} />
      <div className="mt-4 flex flex-wrap items-center gap-2">
        {model.kind === 'valueRanges' && canEdit && <Button onClick={() => setEditsRanges((e) => !e)}>{editsRanges ? 'Close the ranges' : 'Edit ranges'}</Button>}
        {canEdit && coverage !== undefined && <WriteCase id={id} content={content} version={version} />}
        {canEdit && <Button onClick={() => raise([{ kind: 'condition', id, items: [], holds: true }], `What is expected of “${content.title}”?`)}>Ask</Button>}
        {canEdit && coverage !== undefined && model.kind === 'valueRanges' && itemsToMake(coverage).length > 0 && (
          <Button look={editing.dirty ? 'plain' : 'accent'} onClick={() => setAdding(itemsToMake(coverage))}>
            Fill the gap
          </Button>
        )}
      </div>
      {model.kind === 'valueRanges' && model.fields.map((field) => <NumberLine key={field.id} field={field} items={coverage?.items ?? []} />)}
      {model.kind === 'valueRanges' && editsRanges && <RangesEditor model={model} onChange={(edit) => update((c) => (c.model.kind === 'valueRanges' ? { ...c, model: edit(c.model) } : c))} />}
      <Asked id={id} design={design} />
      <Shown id={id} coverage={coverage} editing={editing} onAdd={setAdding} />
      <Observations observations={content.observations} canEdit={canEdit} onChange={(observations) => update((c) => ({ ...c, observations }))} />
      <Section title="Defects" aside="in the story tracker">
        <div className="mt-1.5">
          <Defects defects={content.defects} canEdit={canEdit} onChange={(defects) => update((c) => ({ ...c, defects }))} />
        </div>
      </Section>
      {adding !== null && <AddToCase id={id} version={version} content={content} items={adding} onClose={() => setAdding(null)} />}
    </article>
  );
}

/** The open questions that bear on the condition, itself or through its requirements. */
function Asked({ id, design }: { readonly id: ConditionId; readonly design: Design | undefined }) {
  const { project } = useFrame();
  const requirements = design?.conditions.find((c) => c.id === id)?.content.requirements.map((r) => r.id) ?? [];
  const open = (design?.questions ?? []).filter((q) => q.content.status === 'open' && q.state !== 'withdrawn' && q.content.about.some((s) => s.id === id || (s.kind === 'requirement' && s.holds && requirements.includes(s.id))));
  return open.map((q) => (
    <p key={q.id} className="mt-2 rounded-[5px] bg-plum-wash px-3 py-1.5 text-sm">
      <Link className="underline" to={address.questions(project, q.id)}>
        {q.id}
      </Link>{' '}
      is open; what it bears on waits for the answer.
    </p>
  ));
}

function Origin({ id, content, texts }: { readonly id: ConditionId; readonly content: ConditionContent; readonly texts: Props['requirementTexts'] }) {
  const { project } = useFrame();
  return (
    <div className="text-xs text-ink2">
      <span className="font-mono">{id}</span> · {MODEL_WORD[content.model.kind]}
      {content.requirements.map((link) => (
        <span key={link.id}>
          {' '}
          · from{' '}
          <Link className="font-mono underline decoration-rule2" to={address.conditions(project, link.id, id)}>
            {link.id}
          </Link>{' '}
          <AnchorWords link={link} text={texts.get(link.id)} />
        </span>
      ))}
    </div>
  );
}

function AnchorWords({ link, text }: { readonly link: RequirementLink; readonly text: string | undefined }) {
  if (link.anchor === null) return <>as a whole</>;
  const gone = text !== undefined && placeAnchor(text, link.anchor).kind === 'gone';
  return (
    <span className={gone ? 'text-brick' : ''}>
      “{link.anchor.quote.length > 60 ? `${link.anchor.quote.slice(0, 60)}…` : link.anchor.quote}”{gone && ' (these words no longer stand there)'}
    </span>
  );
}

type Update = Editing<ConditionContent>['update'];

function Choices({ content, canEdit, update, onRanges }: { readonly content: ConditionContent; readonly canEdit: boolean; readonly update: Update; readonly onRanges: () => void }) {
  const { model } = content;
  const setModel = (kind: ModelKind): void => {
    if (kind === model.kind) return;
    const next: Model = kind === 'plain' ? { kind } : newModel(content.title.toLowerCase().slice(0, 60));
    update((c) => ({ ...c, model: next }));
    if (kind === 'valueRanges') onRanges();
  };
  const risks = [{ value: 'inherit' as const, name: 'Risk of its requirement' }, ...options(RISK_WORD)];
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      <Choose label="Model" showLabel value={model.kind} options={options(MODEL_WORD)} onChange={setModel} disabled={!canEdit} />
      {model.kind === 'valueRanges' && (
        <Choose label="Boundaries" value={model.boundaries} options={options(BOUNDARY_WORD)} onChange={(boundaries) => update((c) => (c.model.kind === 'valueRanges' ? { ...c, model: { ...c.model, boundaries } } : c))} disabled={!canEdit} />
      )}
      <Choose label="Polarity" value={content.polarity} options={options(POLARITY_WORD)} onChange={(polarity) => update((c) => ({ ...c, polarity }))} disabled={!canEdit} />
      <Choose label="Risk" value={content.risk ?? 'inherit'} options={risks} onChange={(risk) => update((c) => ({ ...c, risk: risk === 'inherit' ? null : risk }))} disabled={!canEdit} />
    </div>
  );
}

/** Requirements that changed in meaning since the condition was derived from them. */
function SuspectLinks({ content, canEdit, update }: { readonly content: ConditionContent; readonly canEdit: boolean; readonly update: Update }) {
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const suspect = content.requirements.flatMap((link) => {
    const requirement = requirements.find((r) => r.id === link.id);
    return requirement !== undefined && link.seenVersion < requirement.meaningSince ? [{ link, requirement }] : [];
  });
  return suspect.map(({ link, requirement }) => (
    <p key={link.id} className="mt-2 rounded-[5px] bg-brick-wash px-3 py-1.5 text-sm">
      {link.id} moved to v{requirement.version} after this was derived from v{link.seenVersion}.{' '}
      <Link className="underline" to={`${address.versions(project, link.id)}?from=${link.seenVersion}&to=${requirement.version}`}>
        Compare
      </Link>
      {canEdit && (
        <>
          {' '}
          ·{' '}
          <TextButton onClick={() => update((c) => ({ ...c, requirements: c.requirements.map((r) => (r.id === link.id ? { ...r, seenVersion: requirement.version } : r)) }))}>Still right</TextButton>
        </>
      )}
    </p>
  ));
}

interface ShownProps {
  readonly id: ConditionId;
  readonly coverage: ConditionCoverage | undefined;
  readonly editing: Editing<ConditionContent>;
  readonly onAdd: (items: readonly ItemKey[]) => void;
}

function Shown({ id, coverage, editing, onAdd }: ShownProps) {
  const { canEdit, person } = useFrame();
  const raise = useRaiseQuestion();
  if (coverage === undefined) {
    const orphan = editing.content.requirements.length === 0;
    return <p className="mt-6 text-ink2">{orphan ? 'It hangs on no requirement, so it is counted nowhere.' : 'Counting what has to be shown …'}</p>;
  }
  const isRanges = editing.content.model.kind === 'valueRanges';
  const actions = canEdit
    ? {
        ...(isRanges ? { onAdd: (item: ItemKey) => onAdd([item]) } : {}),
        onLeaveOut: (item: ItemKey, reason: string) => editing.update((c) => ({ ...c, leftOut: [...c.leftOut.filter((l) => l.id !== item), { id: item, reason, by: person.name, at: new Date().toISOString() }] })),
        onAsk: (item: ItemKey) => raise([{ kind: 'condition', id, items: isRanges ? [item] : [], holds: true }], `What is expected of “${coverage.items.find((i) => i.item.key === item)?.item.name ?? ''}”?`),
        onTakeBack: (item: ItemKey) => editing.update((c) => ({ ...c, leftOut: c.leftOut.filter((l) => l.id !== item) })),
      }
    : {};
  return (
    <Section title="What has to be shown" aside={summaryWords(coverage.items)} actions={isRanges && <span className="text-ink2">{techniqueWords(coverage.items)}</span>}>
      <ItemList condition={id} items={coverage.items} {...actions} />
      {!isRanges && <p className="mt-2 text-xs text-ink2">A plain condition is shown by a case that covers it and names a step whose expected result speaks for it.</p>}
    </Section>
  );
}

function summaryWords(items: readonly ItemCoverage[]): string {
  const counts = countStandings(items.map((i) => i.standing));
  const percent = percentDown(shownRatio(counts));
  return `${countOf(items.length, 'coverage item')} · ${counts.shown} of ${itemsToShow(counts)} shown${percent === null ? '' : ` · ${percent} %`}`;
}

function techniqueWords(items: readonly ItemCoverage[]): string {
  const parts = [
    ['partitions', 'partition'],
    ['boundaries', 'boundary'],
    ['other kinds', 'class'],
  ] as const;
  return parts
    .map(([word, kind]) => ({ word, of: items.filter((i) => i.item.kind === kind) }))
    .filter(({ of }) => of.length > 0)
    .map(({ word, of }) => `${word} ${of.filter((i) => i.standing === 'shown').length}/${of.length}`)
    .join(' · ');
}

/** Makes a case that covers the condition and opens it. */
function WriteCase({ id, content, version }: { readonly id: ConditionId; readonly content: ConditionContent; readonly version: number }) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const create = useCreate(project);
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const write = async (): Promise<void> => {
    const module = requirements.find((r) => r.id === content.requirements[0]?.id)?.module ?? '';
    const cover = { id, seenVersion: version, fields: [], outcome: null, expects: [] };
    const made = await create({ kind: 'case', content: { ...EMPTY_CASE, title: content.title, module, covers: [cover] } });
    if (made !== null) await navigate(address.artefact(project, made), { state: { made: true } });
  };
  return <Button onClick={() => void write()}>Write a case</Button>;
}
