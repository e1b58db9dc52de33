import type { ConditionId } from '@caderno/core/artefacts';
import { mergedConditions, mergedCovers, type Design, type DesignCondition } from '@caderno/core/coverage';
import { useState } from 'react';
import { toast } from 'sonner';
import { call, tellFailure, useSummaries } from '../../api/index.ts';
import { useWrite } from '../../artefacts/index.ts';
import { useFrame } from '../../frame/index.ts';
import { Button, Dialog, MODEL_WORD, countOf, Answer } from '../../look/index.ts';

interface Props {
  readonly chosen: readonly DesignCondition[];
  readonly design: Design;
  readonly onClose: () => void;
  readonly onDone: () => void;
}

/** Merges conditions into one of them, after a preview of what stays and what becomes of the links. */
export function MergeConditions({ chosen, design, onClose, onDone }: Props) {
  const { project } = useFrame();
  const write = useWrite(project);
  const [keptId, setKept] = useState<ConditionId | undefined>(chosen[0]?.id);
  const allFeatures = useSummaries(project, 'feature').data ?? [];
  const kept = chosen.find((c) => c.id === keptId);
  if (kept === undefined) return null;
  const absorbed = chosen.filter((c) => c.id !== kept.id);
  const merge = mergedConditions(kept, absorbed, design.cases);
  const gone = new Set<ConditionId>(absorbed.map((c) => c.id));
  const features = allFeatures.filter((f) => f.covers.some((id) => gone.has(id)));
  const withFeatures = async () => {
    const read = await Promise.all(features.map((f) => call('readArtefact', { params: { project, id: f.id } })));
    return read.flatMap((a) => (a.kind === 'feature' ? [{ kind: 'feature' as const, id: a.summary.id, version: a.summary.version, content: { ...a.content, parts: a.content.parts.map((p) => ({ ...p, covers: mergedCovers(p.covers, kept, gone) })) } }] : []));
  };
  const run = async (): Promise<void> => {
    const relinked = await withFeatures().catch(tellFailure);
    if (relinked === undefined) return;
    const changed = [
      ...relinked,
      { kind: 'condition' as const, id: kept.id, version: kept.version, content: merge.condition },
      ...merge.cases.map((c) => ({ kind: 'case' as const, ...c })),
    ];
    const done = await write({ changed, withdrawn: absorbed.map((c) => c.id), detail: `${absorbed.map((c) => c.id).join(', ')} merged into ${kept.id}` });
    if (done === null) return;
    toast.success(`Merged into ${kept.id}. The journal can undo it.`);
    onDone();
  };
  return (
    <Dialog title={`Merge ${countOf(chosen.length, 'condition')}`} onClose={onClose}>
      <fieldset className="text-sm">
        <legend className="mb-1 text-xs text-ink2">Which one stays, with its title and model?</legend>
        {chosen.map((c) => (
          <Answer key={c.id} name="kept" checked={c.id === kept.id} onPick={() => setKept(c.id)} className="border-t border-rule">
            <span className="font-mono text-xs text-ink2">{c.id}</span> {c.content.title} <span className="text-xs text-ink2">{MODEL_WORD[c.content.model.kind]}</span>
          </Answer>
        ))}
      </fieldset>
      <p className="mt-3 text-sm">
        {kept.id} then hangs on {merge.condition.requirements.map((r) => r.id).join(', ')}. {merge.cases.length === 0 ? 'No case covers the others.' : `${merge.cases.map((c) => c.id).join(', ')} cover${merge.cases.length === 1 ? 's' : ''} it instead of the others; the steps they name speak on, and values they carried for another model are to be mapped anew.`} {features.length > 0 && `Scenarios of ${features.map((f) => f.id).join(', ')} likewise.`} {absorbed.map((c) => c.id).join(', ')} {absorbed.length === 1 ? 'is' : 'are'} withdrawn.
      </p>
      <div className="mt-5 flex gap-2">
        <Button look="accent" onClick={() => void run()}>
          Merge into {kept.id}
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Dialog>
  );
}
