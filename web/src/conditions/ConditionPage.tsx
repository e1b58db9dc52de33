import { isSuspect, type ConditionId, type RequirementId } from '@caderno/core/artefacts';
import { PLAIN_ITEM, countItems, placeAnchor, type ConditionContent, type ItemKey, type ItemKind, type Model, type RequirementLink } from '@caderno/core/conditions';
import { countStandings, itemsToMake, itemsToShow, percentDown, shownRatio, type ConditionCoverage, type Design, type DesignChange, type ItemCoverage } from '@caderno/core/coverage';
import { pathOfItem, withItems } from '@caderno/core/remarks';
import { Suspense, lazy, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useDesign, useSummaries } from '../api/index.ts';
import { Defects, Loading, useRaiseQuestion, useStillRight, Observations } from '../artefacts/index.ts';
import { useLiveCoverage } from '../liveCoverage/index.ts';
import { Attachments } from '../attachments/index.ts';
import { OwnFields } from '../fields/index.ts';
import { WholeWidth, address, useFrame } from '../frame/index.ts';
import { Button, ITEM_KIND_WORD, Section, TextButton, countOf, locale } from '../look/index.ts';
import { Remarks, type PagePlace } from '../remarks/index.ts';
import { ArtefactHead, useEditable, useEditing, type EditableArtefact, type Editing } from '../versions/index.ts';
import { ItemList } from './ItemList.tsx';
import { ModelChoices, RareChoices, rareWords } from './ModelChoices.tsx';
import { ModelPart } from './ModelPart.tsx';
import { Why } from './Why.tsx';

/** Their tables and drawings may be longer than a page is wide. */
const WIDE_MODELS: ReadonlySet<Model['kind']> = new Set<Model['kind']>(['decisionTable', 'stateTransitions', 'combination']);

const WriteCases = lazy(() => import('./writing/WriteCases.tsx').then((m) => ({ default: m.WriteCases })));

interface Props {
  readonly id: ConditionId;
  readonly requirementTexts: ReadonlyMap<RequirementId, string>;
}

/** A condition: its model, drawn, and what has to be shown. */
export function ConditionPage({ id, requirementTexts }: Props) {
  const { project } = useFrame();
  const { data, error } = useEditable('condition', id);
  // Asked for together with the condition, not after it.
  const design = useDesign(project, { condition: id }).data;
  return data === undefined ? <Loading error={error} /> : <Condition key={id} design={design} artefact={data} requirementTexts={requirementTexts} />;
}

function Condition({ artefact, design, requirementTexts }: { readonly artefact: EditableArtefact<'condition'>; readonly design: Design | undefined; readonly requirementTexts: Props['requirementTexts'] }) {
  const { canEdit, isPast } = useFrame();
  const editing = useEditing('condition', artefact);
  const { content, update } = editing;
  const { id, state, version, meaningSince } = artefact.summary;
  const raise = useRaiseQuestion();
  const [editsRanges, setEditsRanges] = useState(false);
  const [writing, setWriting] = useState<readonly ItemKey[] | null>(null);
  const change = useMemo<DesignChange>(() => ({ kind: 'condition', id, condition: { id, state, version, meaningSince, content } }), [content, id, meaningSince, state, version]);
  const coverage = useLiveCoverage(design, change).get(id);
  const remarked = useMemo(() => withItems(content, coverage?.items.map((i) => i.item)), [content, coverage]);
  const [remarking, setRemarking] = useState<PagePlace | null>(null);
  const { model } = content;
  const missing = coverage === undefined ? [] : itemsToMake(coverage);
  const count = countItems(model);
  const refused = design !== undefined && count > BigInt(design.mostItems);
  return (
    <article className="px-7 pb-16 pt-5">
      <ArtefactHead summary={artefact.summary} state={state} editing={editing} rareWords={rareWords(content)} rare={<RareChoices content={content} canEdit={canEdit} update={update} />}>
        <ModelChoices id={id} content={content} coverage={coverage} canEdit={canEdit} update={update} onRanges={() => setEditsRanges(true)} />
      </ArtefactHead>
      <Origin id={id} content={content} texts={requirementTexts} {...(canEdit ? { onUnlink: (r: RequirementId) => update((c) => ({ ...c, requirements: c.requirements.filter((link) => link.id !== r) })) } : {})} />
      <SuspectLinks id={id} content={content} canEdit={canEdit} />
      <div className="mt-4 flex flex-wrap items-center gap-2">
        {model.kind === 'valueRanges' && canEdit && <Button onClick={() => setEditsRanges((e) => !e)}>{editsRanges ? 'Done with the ranges' : 'Edit ranges'}</Button>}
        {canEdit && <Button onClick={() => raise([{ kind: 'condition', id, items: [], holds: true }], `What is expected of “${content.title}”?`)}>Ask a question</Button>}
        {canEdit && coverage !== undefined && coverage.items.length > 0 && !refused && (
          <Button look={editing.dirty || missing.length === 0 ? 'plain' : 'accent'} onClick={() => setWriting(missing.length > 0 ? missing : coverage.items.filter((i) => i.standing !== 'leftOut').map((i) => i.item.key))}>
            {missing.length === 0 || missing.length === coverage.items.length ? 'Write cases' : `Write cases for the ${missing.length.toLocaleString(locale())} missing`}
          </Button>
        )}
        {WIDE_MODELS.has(model.kind) && <WholeWidth />}
      </div>
      {refused && <p className="mt-3 rounded-field bg-brick-wash px-3 py-1.5 text-sm text-brick">This model has {count.toLocaleString(locale())} coverage items, and the project allows {design.mostItems.toLocaleString(locale())} in one condition. None is made; the condition counts as one item that nothing shows. Choose a lower level or strength, or divide the model.</p>}
      <div data-place="model">
        <ModelPart content={content} items={coverage?.items ?? []} refused={refused} canEdit={canEdit} editsRanges={editsRanges} update={update} />
      </div>
      <Asked id={id} design={design} />
      <Shown id={id} coverage={coverage} editing={editing} design={design} refused={refused} onWrite={setWriting} {...(isPast ? {} : { onRemark: (item: ItemKey) => setRemarking({ path: pathOfItem(item), words: null }) })} />
      <Observations observations={content.observations} canEdit={canEdit} onChange={(observations) => update((c) => ({ ...c, observations }))} />
      <Remarks place="page" id={id} version={version} content={remarked} asked={remarking} onAsked={() => setRemarking(null)} />
      <OwnFields place="page" id={id} kind="condition" own={content.own} canEdit={canEdit} onChange={(own) => update((c) => ({ ...c, own }))} />
      <Section title="Files">
        <div className="mt-1.5">
          <Attachments attachments={content.attachments} canEdit={canEdit} onChange={(change) => update((c) => ({ ...c, attachments: change(c.attachments) }))} />
        </div>
      </Section>
      <Section title="Defects" aside="in the story tracker">
        <div className="mt-1.5">
          <Defects defects={content.defects} canEdit={canEdit} onChange={(defects) => update((c) => ({ ...c, defects }))} />
        </div>
      </Section>
      {writing !== null && (
        <Suspense>
          <WriteCases toWrite={[{ condition: { id, version, content }, items: writing }]} onClose={() => setWriting(null)} />
        </Suspense>
      )}
    </article>
  );
}

/** The open questions that bear on the condition, itself or through its requirements. */
function Asked({ id, design }: { readonly id: ConditionId; readonly design: Design | undefined }) {
  const { project } = useFrame();
  const requirements = design?.conditions.find((c) => c.id === id)?.content.requirements.map((r) => r.id) ?? [];
  const open = (design?.questions ?? []).filter((q) => q.content.status === 'open' && q.state !== 'withdrawn' && q.content.about.some((s) => s.id === id || (s.kind === 'requirement' && s.holds && requirements.includes(s.id))));
  return open.map((q) => (
    <p key={q.id} className="mt-2 rounded-field bg-plum-wash px-3 py-1.5 text-sm">
      <Link className="underline" to={address.questions(project, q.id)}>
        {q.id}
      </Link>{' '}
      is open; what it bears on waits for the answer.
    </p>
  ));
}

interface OriginProps {
  readonly id: ConditionId;
  readonly content: ConditionContent;
  readonly texts: Props['requirementTexts'];
  /** Absent for readers. */
  readonly onUnlink?: (requirement: RequirementId) => void;
}

/** Where it comes from: the first requirement in a line, the others when one asks for them. */
function Origin({ id, content, texts, onUnlink }: OriginProps) {
  const [open, setOpen] = useState(false);
  const [first, ...others] = content.requirements;
  return (
    <div className="mt-2 text-xs text-ink2">
      {first !== undefined && (
        <>
          From <Source id={id} link={first} text={texts.get(first.id)} />
          {others.length > 0 && (
            <span className="print:hidden">
              {' '}
              and{' '}
              <TextButton className="first-letter:normal-case!" aria-expanded={open} onClick={() => setOpen(!open)}>
                {others.length} more
              </TextButton>
            </span>
          )}
        </>
      )}
      {open && others.length > 0 && (
        <ul className="mt-1 border-l-2 border-rule2 pl-2">
          {content.requirements.map((link) => (
            <li key={link.id} className="flex min-h-6 flex-wrap items-baseline gap-x-3">
              <span className="min-w-0">
                <Source id={id} link={link} text={texts.get(link.id)} />
              </span>
              {onUnlink !== undefined && <TextButton aria-label={`Unlink ${link.id}`} onClick={() => onUnlink(link.id)}>Unlink</TextButton>}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

function Source({ id, link, text }: { readonly id: ConditionId; readonly link: RequirementLink; readonly text: string | undefined }) {
  const { project } = useFrame();
  return (
    <>
      <Link className="font-mono underline decoration-rule2" to={address.conditions(project, link.id, id)}>
        {link.id}
      </Link>{' '}
      <AnchorWords link={link} text={text} />
    </>
  );
}

function AnchorWords({ link, text }: { readonly link: RequirementLink; readonly text: string | undefined }) {
  if (link.anchor === null) return null;
  const gone = text !== undefined && placeAnchor(text, link.anchor).kind === 'gone';
  return (
    <span className={gone ? 'text-brick' : ''}>
      “{link.anchor.quote.length > 60 ? `${link.anchor.quote.slice(0, 60)}…` : link.anchor.quote}”{gone && ' (these words no longer stand there)'}
    </span>
  );
}

/** Requirements that changed in meaning since the condition was derived from them. */
function SuspectLinks({ id, content, canEdit }: { readonly id: ConditionId; readonly content: ConditionContent; readonly canEdit: boolean }) {
  const stillRight = useStillRight();
  const { project } = useFrame();
  const requirements = useSummaries(project, 'requirement').data ?? [];
  const suspect = content.requirements.flatMap((link) => {
    const requirement = requirements.find((r) => r.id === link.id);
    return requirement !== undefined && isSuspect(link, requirement) ? [{ link, requirement }] : [];
  });
  return suspect.map(({ link, requirement }) => (
    <p key={link.id} className="mt-2 rounded-field bg-brick-wash px-3 py-1.5 text-sm">
      {link.id} moved to v{requirement.version} after this was derived from v{link.seenVersion}.{' '}
      <Link className="underline" to={`${address.versions(project, link.id)}?from=${link.seenVersion}&to=${requirement.version}`}>
        Compare
      </Link>
      {canEdit && (
        <>
          {' '}
          ·{' '}
          <TextButton onClick={() => stillRight([{ from: id, to: link.id, now: requirement.version }])}>Still right</TextButton>
        </>
      )}
    </p>
  ));
}

interface ShownProps {
  readonly id: ConditionId;
  readonly coverage: ConditionCoverage | undefined;
  readonly editing: Editing<ConditionContent>;
  readonly design: Design | undefined;
  readonly refused: boolean;
  readonly onWrite: (items: readonly ItemKey[]) => void;
  /** Absent: nothing is said here. */
  readonly onRemark?: (item: ItemKey) => void;
}

function Shown({ id, coverage, editing, design, refused, onWrite, onRemark }: ShownProps) {
  const { canEdit, person } = useFrame();
  const raise = useRaiseQuestion();
  const [why, setWhy] = useState<ItemKey | null>(null);
  const { content, update } = editing;
  if (coverage === undefined) {
    const orphan = content.requirements.length === 0;
    return <p className="mt-6 text-ink2">{orphan ? 'It hangs on no requirement, so it is counted nowhere.' : 'Counting what has to be shown …'}</p>;
  }
  const explained = coverage.items.find((i) => i.item.key === why);
  const stored = design?.conditions.find((c) => c.id === id);
  const actions = canEdit
    ? {
        ...(refused ? {} : { onAdd: (item: ItemKey) => onWrite([item]) }),
        onLeaveOut: (item: ItemKey, reason: string) => update((c) => ({ ...c, leftOut: [...c.leftOut.filter((l) => l.id !== item), { id: item, reason, by: person.name, at: new Date().toISOString() }] })),
        onAsk: (item: ItemKey) => raise([{ kind: 'condition', id, items: item === PLAIN_ITEM ? [] : [item], holds: true }], `What is expected of “${coverage.items.find((i) => i.item.key === item)?.item.name ?? ''}”?`),
        onTakeBack: (item: ItemKey) => update((c) => ({ ...c, leftOut: c.leftOut.filter((l) => l.id !== item) })),
      }
    : {};
  return (
    <Section title="What has to be shown" aside={summaryWords(coverage.items)} actions={<span className="text-ink2">{kindWords(coverage.items)}</span>}>
      <ItemList condition={id} coverage={coverage} onWhy={(item) => setWhy(item.item.key)} {...actions} {...(onRemark === undefined ? {} : { onRemark })} />
      {content.model.kind === 'plain' && <p className="mt-2 text-xs text-ink2">A plain condition is shown by a case that covers it and names a step whose expected result speaks for it.</p>}
      {explained !== undefined && design !== undefined && stored !== undefined && <Why condition={{ ...stored, content }} design={design} coverage={coverage} item={explained} onClose={() => setWhy(null)} />}
    </Section>
  );
}

function summaryWords(items: readonly ItemCoverage[]): string {
  const counts = countStandings(items.map((i) => i.standing));
  const percent = percentDown(shownRatio(counts));
  return `${countOf(items.length, 'coverage item')} · ${counts.shown} of ${itemsToShow(counts)} shown${percent === null ? '' : ` · ${percent} %`}`;
}

/** `rules 3/4`, `transitions 5/9 · refused events 0/6`; nothing where there is one kind of one item. */
function kindWords(items: readonly ItemCoverage[]): string {
  const kinds = [...new Set(items.map((i) => i.item.kind))];
  if (items.length < 2) return '';
  return kinds.map((kind) => `${manyOf(kind)} ${items.filter((i) => i.item.kind === kind && i.standing === 'shown').length}/${items.filter((i) => i.item.kind === kind).length}`).join(' · ');
}

function manyOf(kind: ItemKind): string {
  if (kind === 'class') return 'other kinds';
  if (kind === 'sequence') return 'runs';
  return kind === 'boundary' ? 'boundaries' : `${ITEM_KIND_WORD[kind]}s`;
}
