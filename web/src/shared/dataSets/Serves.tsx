import { isSuspect, type ConditionId, type DataSetId } from '@caderno/core/artefacts';
import { carriedFields, type FieldId } from '@caderno/core/conditions';
import { addProposedRows, countStandings, fillGap, itemsToMake, mapFields, type ConditionCoverage, type DesignCondition } from '@caderno/core/coverage';
import { asCase, fromCase, type DataSetContent, type Served } from '@caderno/core/dataSets';
import { useState } from 'react';
import { Link } from 'react-router';
import { call, tellFailure, useSummaries } from '../../api/index.ts';
import { PickArtefact, someIds, useStillRight } from '../../artefacts/index.ts';
import { GapPreview } from '../../liveCoverage/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Button, Choose, Dialog, TextButton, countOf, locale } from '../../look/index.ts';
import type { Editing } from '../../versions/index.ts';

interface Props {
  readonly id: DataSetId;
  readonly content: DataSetContent;
  readonly conditions: ReadonlyMap<ConditionId, DesignCondition>;
  readonly coverages: ReadonlyMap<ConditionId, ConditionCoverage>;
  readonly canEdit: boolean;
  readonly update: Editing<DataSetContent>['update'];
}

const MODELS_WITH_FIELDS = ['valueRanges', 'decisionTable', 'combination'];

/** The conditions that the rows are made for: what columns carry which fields, what the rows show of each, and rows for what is missing. */
export function Serves({ id, content, conditions, coverages, canEdit, update }: Props) {
  const { project } = useFrame();
  const stillRight = useStillRight();
  const [mapping, setMapping] = useState<ConditionId | null>(null);
  const [filling, setFilling] = useState<ConditionId | null>(null);
  const summaries = useSummaries(project, 'condition').data ?? [];
  const offered = summaries.filter((c) => MODELS_WITH_FIELDS.includes(c.model) && !content.serves.some((s) => s.id === c.id)).map((c) => ({ id: c.id, title: c.title }));
  const link = async (id: ConditionId): Promise<void> => {
    try {
      const condition = await call('readArtefact', { params: { project, id } });
      if (condition.kind !== 'condition') return;
      const ids = someIds();
      update((c) => fromCase(c, mapFields(asCase(c), { id, version: condition.summary.version, content: condition.content }, ids())));
    } catch (error) {
      tellFailure(error);
    }
  };
  const set = (id: ConditionId, part: Partial<Served>): void => update((c) => ({ ...c, serves: c.serves.map((s) => (s.id === id ? { ...s, ...part } : s)) }));
  const [open, gap] = [content.serves.find((s) => s.id === mapping), conditions.get(filling ?? 'K-0')];
  const openCondition = mapping === null ? undefined : conditions.get(mapping);
  const gapCoverage = filling === null ? undefined : coverages.get(filling);
  return (
    <>
      <ul className="space-y-2">
        {content.serves.map((served) => (
          <ServedLine
            key={served.id}
            served={served}
            condition={conditions.get(served.id)}
            coverage={coverages.get(served.id)}
            canEdit={canEdit}
            onMap={() => setMapping(served.id)}
            onFill={() => setFilling(served.id)}
            onStillRight={(now) => stillRight([{ from: id, to: served.id, now }])}
            onRemove={() => update((c) => ({ ...c, serves: c.serves.filter((s) => s.id !== served.id) }))}
          />
        ))}
      </ul>
      {content.serves.length === 0 && <p>No condition yet: its columns are not typed by any.</p>}
      {canEdit && <PickArtefact label="A condition it serves" placeholder="a condition it serves …" offered={offered} onPick={(id) => void link(id)} className="mt-2" />}
      {open !== undefined && openCondition !== undefined && <Mapping content={content} served={open} condition={openCondition} onChange={(part) => set(open.id, part)} onClose={() => setMapping(null)} />}
      {gap !== undefined && gapCoverage !== undefined && <Fill condition={gap} coverage={gapCoverage} update={update} onClose={() => setFilling(null)} />}
    </>
  );
}

interface LineProps {
  readonly served: Served;
  readonly condition: DesignCondition | undefined;
  readonly coverage: ConditionCoverage | undefined;
  readonly canEdit: boolean;
  readonly onMap: () => void;
  readonly onFill: () => void;
  readonly onStillRight: (version: number) => void;
  readonly onRemove: () => void;
}

function ServedLine({ served, condition, coverage, canEdit, onMap, onFill, onStillRight, onRemove }: LineProps) {
  const { project } = useFrame();
  const standings = coverage?.items.map((i) => i.standing) ?? [];
  const counts = countStandings(standings);
  const missing = counts.gap + counts.linked;
  const suspect = isSuspect(served, condition);
  return (
    <li>
      <Link className="text-ink underline decoration-rule2" to={address.condition(project, served.id)}>
        <span className="font-mono text-xs">{served.id}</span> {condition?.content.title ?? '…'}
      </Link>
      {coverage !== undefined && (
        <p>
          its rows show {(counts.shown + counts.suspect).toLocaleString(locale())} of {countOf(standings.length - counts.leftOut, 'item')}
          {counts.waiting > 0 && `; ${counts.waiting} ${counts.waiting === 1 ? 'waits' : 'wait'} for an answer`}
        </p>
      )}
      {suspect && (
        <p className="text-brick">
          It changed since. {canEdit && condition !== undefined && <TextButton onClick={() => onStillRight(condition.version)}>still right</TextButton>}
        </p>
      )}
      {canEdit && condition !== undefined && (
        <p className="flex flex-wrap gap-x-3">
          <TextButton onClick={onMap}>{countOf(served.fields.length, 'column')}</TextButton>
          {missing > 0 && <TextButton onClick={onFill}>Generate rows for what is missing</TextButton>}
          <TextButton onClick={onRemove}>unlink</TextButton>
        </p>
      )}
    </li>
  );
}

interface MappingProps {
  readonly content: DataSetContent;
  readonly served: Served;
  readonly condition: DesignCondition;
  readonly onChange: (part: Partial<Served>) => void;
  readonly onClose: () => void;
}

function Mapping({ content, served, condition, onChange, onClose }: MappingProps) {
  const columns = [{ value: '', name: 'no column' }, ...content.parameters.map((p) => ({ value: p.id as string, name: `<${p.name}>` }))];
  const known = (value: string) => content.parameters.find((p) => p.id === value)?.id ?? null;
  const carry = (field: FieldId, value: string): void => {
    const parameter = known(value);
    onChange({ fields: [...served.fields.filter((f) => f.id !== field), ...(parameter === null ? [] : [{ id: field, parameter }])] });
  };
  return (
    <Dialog title={`Columns for ${condition.id} ${condition.content.title}`} keepsAtOnce onClose={onClose}>
      <ul className="space-y-1.5 text-sm">
        {carriedFields(condition.content.model).map((field) => (
          <li key={field.id} className="flex items-center gap-3">
            <span className="w-48">{field.name}</span>
            <Choose label={field.name} value={served.fields.find((f) => f.id === field.id)?.parameter ?? ''} options={columns} onChange={(value) => carry(field.id, value)} />
          </li>
        ))}
        <li className="flex items-center gap-3 border-t border-rule pt-1.5">
          <span className="w-48">what it should lead to</span>
          <Choose label="Outcome" value={served.outcome ?? ''} options={columns} onChange={(value) => onChange({ outcome: known(value) })} />
        </li>
      </ul>
      <div className="mt-4">
        <Button onClick={onClose}>Done</Button>
      </div>
    </Dialog>
  );
}

function Fill({ condition, coverage, update, onClose }: { readonly condition: DesignCondition; readonly coverage: ConditionCoverage; readonly update: Props['update']; readonly onClose: () => void }) {
  const filling = fillGap(condition.content, itemsToMake(coverage));
  const add = (): void => {
    const ids = someIds();
    update((c) => fromCase(c, addProposedRows(asCase(c), condition, filling.rows, ids())));
    onClose();
  };
  return (
    <Dialog title={`Rows for what is missing of ${condition.id} ${condition.content.title}`} onClose={onClose} wide>
      <GapPreview condition={condition.content} filling={filling} />
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={filling.rows.length === 0} onClick={add}>
          Add {countOf(filling.rows.length, 'row')}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
