import type { CaseId, ConditionId } from '@caderno/core/artefacts';
import type { ConditionContent, ItemKey } from '@caderno/core/conditions';
import { EMPTY_CASE } from '@caderno/core/cases';
import { addProposedRows, fillGap } from '@caderno/core/coverage';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { call, tellFailure, useSummaries } from '../api/index.ts';
import { useCreate } from '../artefacts/index.ts';
import { GapPreview } from '../coverage/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { Button, Dialog, countOf } from '../look/index.ts';
import { newPartId } from './newParts.ts';

interface Props {
  readonly id: ConditionId;
  readonly version: number;
  readonly content: ConditionContent;
  readonly items: readonly ItemKey[];
  readonly onClose: () => void;
}

const NEW_CASE = 'new';

/** Adds the rows that would show missing items to a case, a covering one first, after a preview. */
export function AddToCase({ id, version, content, items, onClose }: Props) {
  const { project } = useFrame();
  const client = useQueryClient();
  const navigate = useNavigate();
  const create = useCreate(project);
  const cases = useSummaries(project, 'case').data ?? [];
  const covering = cases.filter((c) => c.covers.includes(id));
  const [chosen, setChosen] = useState<CaseId | typeof NEW_CASE | null>(null);
  const target = chosen ?? covering[0]?.id ?? NEW_CASE;
  const filling = fillGap(content, items);
  const condition = { version, content };
  const add = async (): Promise<void> => {
    try {
      if (target === NEW_CASE) {
        const made = addProposedRows({ ...EMPTY_CASE, title: content.title }, id, condition, filling.rows, newPartId);
        const caseId = await create({ kind: 'case', content: made });
        if (caseId !== null) await navigate(address.artefact(project, caseId), { state: { made: true } });
        return;
      }
      const artefact = await call('readArtefact', { params: { project, id: target } });
      if (artefact.kind !== 'case') return;
      const changed = addProposedRows(artefact.content, id, condition, filling.rows, newPartId);
      const body = { kind: 'case' as const, content: changed, note: `Rows for ${id} ${content.title}` };
      await call('saveArtefact', { params: { project, id: target }, body }, { ifMatch: artefact.summary.version, commandId: crypto.randomUUID() });
      await client.invalidateQueries({ queryKey: [project] });
      toast.success(`${countOf(filling.rows.length, 'row')} added to ${target}. The journal can undo it.`);
      onClose();
    } catch (error) {
      tellFailure(error);
    }
  };
  return (
    <Dialog title={`Add to a case what shows ${countOf(items.length, 'item')}`} onClose={onClose} wide>
      <GapPreview condition={content} filling={filling} />
      <label className="mt-4 block text-sm font-semibold">
        Case
        <select className="field-boxed mt-1 block w-full font-normal" value={target} onChange={(e) => setChosen(e.target.value as CaseId | typeof NEW_CASE)}>
          {covering.map((c) => (
            <option key={c.id} value={c.id}>
              {c.id} {c.title} (covers {id})
            </option>
          ))}
          <option value={NEW_CASE}>A new case</option>
          {cases
            .filter((c) => !c.covers.includes(id))
            .map((c) => (
              <option key={c.id} value={c.id}>
                {c.id} {c.title}
              </option>
            ))}
        </select>
      </label>
      <div className="mt-5 flex gap-2">
        <Button look="accent" disabled={filling.rows.length === 0} onClick={() => void add()}>
          Add {countOf(filling.rows.length, 'row')}
        </Button>
        <Button onClick={onClose}>Not now</Button>
      </div>
    </Dialog>
  );
}
