import type { FeatureId, RequirementId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import type { ProposedRow, SeenCondition } from '@caderno/core/coverage';
import { EMPTY_FEATURE, columnsOfExamples, fileNameFor, freePath, outlineOf, textOf, withExampleRows, withScenariosOf, withText, type FeatureContent, type FeaturePart } from '@caderno/core/scenarios';
import { LIMITS, type FeatureSummary } from '@caderno/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useArtefact, useSummaries } from '../../api/index.ts';
import { Loading, PickArtefact, someIds, useWrite } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Choose, countOf } from '../../look/index.ts';

interface Props {
  /** Cases as they are edited above: each becomes a scenario. */
  readonly drafts: readonly CaseContent[];
  /** What new features are written for, and where those that are offered first stand. */
  readonly requirements: readonly RequirementId[];
  readonly title: string;
  readonly module: string;
  readonly detail: string;
  /** The one condition with the rows that would show it: they may go to an outline that covers it already. Null: several are written for. */
  readonly rows: { readonly condition: SeenCondition; readonly proposed: readonly ProposedRow[] } | null;
  readonly onClose: () => void;
}

const NEW = 'new';
type Target = FeatureId | typeof NEW;
/** Features that are offered by themselves; any other is found by its words. */
const MOST_OFFERED = 12;

/** Where scenarios are written: a feature that is there, or a new one; and what its text would be. */
export function WriteScenarios(props: Props) {
  const { project } = useFrame();
  const features = (useSummaries(project, 'feature').data ?? []).filter((f) => f.state !== 'withdrawn' && !f.broken);
  const near = nearest(features, props);
  const [chosen, setChosen] = useState<Target | null>(null);
  const target = chosen ?? near[0]?.id ?? NEW;
  const offered: { readonly value: Target; readonly name: string }[] = [{ value: NEW, name: 'a new feature' }, ...features.filter((f) => f.id === target || near.slice(0, MOST_OFFERED).includes(f)).map((f) => ({ value: f.id, name: `${f.id} ${f.title}` }))];
  return (
    <div className="mt-3 border-t border-rule2 pt-3">
      <p className="flex flex-wrap items-center gap-2 text-sm">
        <span className="text-ink2">Write into</span>
        <Choose label="Feature" value={target} options={offered} onChange={setChosen} />
        <PickArtefact label="Another feature to add to" placeholder="Another feature: id or words" offered={features.map((f) => ({ id: f.id, title: f.title, aside: f.path }))} onPick={setChosen} className="!min-h-chip !w-64 !py-0.5 !text-xs" />
      </p>
      {target === NEW ? <IntoNew {...props} taken={features.map((f) => f.path)} /> : <IntoFeature key={target} {...props} id={target} />}
    </div>
  );
}

/** Features that cover the condition, then those written for its requirements. */
function nearest(features: readonly FeatureSummary[], { rows, requirements }: Props): readonly FeatureSummary[] {
  const covering = features.filter((f) => rows !== null && f.covers.includes(rows.condition.id));
  return [...covering, ...features.filter((f) => !covering.includes(f) && f.requirements.some((r) => requirements.includes(r)))];
}

function IntoNew({ drafts, requirements, title, module, detail, taken, onClose }: Props & { readonly taken: readonly string[] }) {
  const { project } = useFrame();
  const heads = new Map(useSummaries(project, 'requirement').data?.map((r) => [r.id, r]));
  const newId = someIds()();
  const name = title.replace(/\s+/g, ' ').trim();
  const bare = withText({ ...EMPTY_FEATURE, path: freePath('', fileNameFor(title), taken), module, requirements: requirements.map((id) => ({ id, seenVersion: heads.get(id)?.version ?? 1, parts: [] })) }, `Feature: ${name}\n`, newId);
  const content = withScenariosOf(bare, drafts, newId);
  return <Written before={bare} content={content} write={{ made: [{ kind: 'feature', content }], detail }} count={drafts.length} into={content.path} onClose={onClose} />;
}

/** Choices beside scenarios of their own: an outline that takes the rows. */
const OWN = 'own';

function IntoFeature({ id, ...props }: Props & { readonly id: FeatureId }) {
  const { project } = useFrame();
  const { data, error } = useArtefact(project, 'feature', id);
  const [outline, setOutline] = useState<string | null>(null);
  if (data === undefined) return <Loading error={error} />;
  const outlines = props.rows === null || props.rows.proposed.length === 0 ? [] : takingRows(data.content, props.rows.condition);
  const chosen = outline ?? outlines[0]?.part.id ?? OWN;
  const into = outlines.find((o) => o.part.id === chosen);
  const newId = someIds()();
  const content = into === undefined || props.rows === null ? withScenariosOf(data.content, props.drafts, newId) : withExampleRows(data.content, into.part.id, cellsOf(into.part, props.rows.condition, props.rows.proposed), newId);
  const write = { changed: [{ kind: 'feature' as const, id, version: data.summary.version, content }], detail: props.detail };
  return (
    <>
      {outlines.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          <span className="text-ink2">as</span>
          <Choose label="As what" value={chosen} options={[...outlines.map((o) => ({ value: o.part.id as string, name: `rows of ${id}/${o.part.number} ${o.name}` })), { value: OWN, name: 'a scenario of its own' }]} onChange={setOutline} />
        </p>
      )}
      <Written before={data.content} content={content} write={write} count={into === undefined ? props.drafts.length : 0} into={id} onClose={props.onClose} />
    </>
  );
}

/** Outlines that cover the condition by columns alone: rows are all they need. */
function takingRows(content: FeatureContent, condition: SeenCondition): { part: FeaturePart; name: string }[] {
  const names = new Map(outlineOf(content).scenarios.map((s) => [s.part, s.name]));
  return content.parts.flatMap((part) => {
    const cover = part.covers.find((c) => c.id === condition.id);
    const columns = columnsOfExamples(content, part.id);
    const carried = cover === undefined ? [] : [...cover.fields.map((f) => f.parameter as string), ...(cover.outcome === null ? [] : [cover.outcome as string])];
    return part.number > 0 && cover !== undefined && cover.fields.length > 0 && carried.every((c) => columns.includes(c)) ? [{ part, name: names.get(part.id) ?? '' }] : [];
  });
}

/** Rows by the names of columns, which are what parameters of an outline are called by. */
function cellsOf(part: FeaturePart, condition: SeenCondition, rows: readonly ProposedRow[]): Record<string, string>[] {
  const cover = part.covers.find((c) => c.id === condition.id);
  return rows.map((row) => ({
    ...Object.fromEntries(row.values.flatMap(({ field, cell }) => cover?.fields.flatMap((f) => (f.id === field ? [[f.parameter, cell]] : [])) ?? [])),
    ...(cover?.outcome == null ? {} : { [cover.outcome]: row.outcome }),
  }));
}

interface WrittenProps {
  readonly before: FeatureContent;
  readonly content: FeatureContent;
  readonly write: Parameters<ReturnType<typeof useWrite>>[0];
  /** Scenarios that are new; 0: rows go to one that is there. */
  readonly count: number;
  readonly into: string;
  readonly onClose: () => void;
}

/** What the file would say that it does not say now, and the button that writes it. */
function Written({ before, content, write, count, into, onClose }: WrittenProps) {
  const { project } = useFrame();
  const send = useWrite(project);
  const navigate = useNavigate();
  const [busy, setBusy] = useState(false);
  const run = async (): Promise<void> => {
    setBusy(true);
    const made = await send(write);
    setBusy(false);
    if (made === null) return;
    const id = made[0] ?? write.changed?.[0]?.id;
    toast.success(`${count === 0 ? 'The rows stand' : count === 1 ? 'The scenario stands' : `${countOf(count, 'scenario')} stand`} in ${id ?? into} now. The journal can undo it.`, id === undefined ? {} : { action: { label: 'Open', onClick: () => void navigate(address.artefact(project, id)) } });
    onClose();
  };
  const known = new Set(before.parts);
  const text = textOf({ parts: content.parts.filter((p) => !known.has(p) && p.kind === 'scenario').map((p) => (count === 0 ? { ...p, lines: p.lines.slice(p.lines.findLastIndex((l) => !/^\s*(?:[|#]|$)/.test(l.text))) } : p)) });
  const tooMany = content.parts.length > LIMITS.featureParts;
  return (
    <>
      <pre tabIndex={0} aria-label="What the file would say" className="mt-2 max-h-[22vh] overflow-auto rounded-field bg-page2 px-3 py-2 font-mono text-xs">{text.replaceAll('\r', '').trimEnd()}</pre>
      {tooMany && <p className="mt-2 text-sm text-brick">These are more scenarios than one feature holds. Take as few as possible, or fewer conditions at a time.</p>}
      <p className="mt-4 flex gap-2">
        <Button look="accent" disabled={busy || content === before || tooMany} onClick={() => void run()}>
          {count === 0 ? 'Add the rows' : `Write ${countOf(count, 'scenario')}`}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </p>
    </>
  );
}
