import type { ConditionId } from '@caderno/core/artefacts';
import { effectiveRisk } from '@caderno/core/basis';
import type { SpecifiedRequirement } from '@caderno/core/specification';
import { useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { RISK_WORD, priorityWord } from '../look/index.ts';
import type { StateDrawing } from '../models/index.ts';
import { SafeMarkdown } from '../text/index.ts';
import { ConditionPart } from './ConditionPart.tsx';
import { PartHead } from './PartHead.tsx';
import { NamedAll } from './Told.tsx';

interface Props {
  readonly requirement: SpecifiedRequirement;
  readonly drawings: ReadonlyMap<ConditionId, StateDrawing>;
}

/** A requirement with its conditions. */
export function RequirementPart({ requirement, drawings }: Props) {
  const scale = useSettings(useFrame().project).data?.settings.riskScale;
  const { content, conditions, toldElsewhere, coveredBy } = requirement;
  const facts = content.type === 'heading' ? [] : [content.module, scale === undefined ? '' : RISK_WORD[effectiveRisk(scale, content)], `priority ${priorityWord(content.priority).toLowerCase()}`, content.source];
  return (
    <section className="mt-7">
      <PartHead of={requirement} facts={facts} />
      {content.text.trim() !== '' && (
        <div className="mt-1 text-sm">
          <SafeMarkdown text={content.text} />
        </div>
      )}
      {content.attachments.length > 0 && <p className="mt-1 text-xs text-ink2">Files: {content.attachments.map((a) => a.name).join(', ')}</p>}
      {coveredBy.length > 0 && (
        <p className="mt-1 text-xs">
          Covered by <NamedAll ids={coveredBy} />
        </p>
      )}
      {conditions.map((condition) => (
        <ConditionPart key={condition.id} condition={condition} drawing={drawings.get(condition.id)} />
      ))}
      {toldElsewhere.length > 0 && (
        <p className="mt-2 text-sm">
          Its conditions too: <NamedAll ids={toldElsewhere} />
        </p>
      )}
    </section>
  );
}
