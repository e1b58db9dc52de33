import { sameScenarios, sharedBeginnings, withBackground, type FeatureContent, type FeatureOutline, type PartId } from '@caderno/core/scenarios';
import { useMemo, useState } from 'react';
import { MarginNote, someIds } from '../../artefacts/index.ts';
import { useFrame, useParameters } from '../../frame/index.ts';
import { TextButton } from '../../look/index.ts';
import { useWording } from '../../phrases/index.ts';
import { OutlineDialog } from './OutlineDialog.tsx';

interface Props {
  readonly content: FeatureContent;
  /** What it says. */
  readonly outline: FeatureOutline;
  readonly update: (change: (content: FeatureContent) => FeatureContent) => void;
}

/** What a feature says twice: scenarios that differ only in values, and steps that all begin with, each with its mend. */
export function TwiceNote({ content, outline, update }: Props) {
  const { own } = useWording(useFrame().project);
  const [parts, setParts] = useAskedOutline(content);
  const same = useMemo(() => sameScenarios(outline, own), [outline, own]);
  const beginnings = useMemo(() => sharedBeginnings(content), [content]);
  const ids = someIds();
  return (
    <>
      {same.length + beginnings.length > 0 && (
        <MarginNote title="Written twice">
          <ul className="space-y-1.5">
            {same.map((group) => (
              <li key={group[0]?.part}>
                Scenarios {wordsOf(group.map((s) => s.number))} differ only in values. <TextButton onClick={() => setParts(group.map((s) => s.part))}>make one outline</TextButton>
              </li>
            ))}
            {beginnings.map(({ rule, scenarios, steps }) => (
              <li key={rule ?? ''}>
                All {scenarios} begin with “{steps[0]?.text}”{steps.length > 1 && ` and ${steps.length - 1} more`}. <TextButton onClick={() => update((c) => withBackground(c, rule, ids()))}>make it their background</TextButton>
              </li>
            ))}
          </ul>
        </MarginNote>
      )}
      {parts !== null && <OutlineDialog content={content} parts={parts} onMade={update} onClose={() => setParts(null)} />}
    </>
  );
}

function wordsOf(numbers: readonly number[]): string {
  const names = numbers.map((n) => (n === 0 ? 'a new one' : `${n}`));
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
}

/** Scenarios to be made one outline; the address may ask for some, by their numbers (`?outline=2,3`). */
function useAskedOutline(content: FeatureContent): [readonly PartId[] | null, (parts: readonly PartId[] | null) => void] {
  const [search, setParameters] = useParameters();
  const [chosen, setChosen] = useState<readonly PartId[] | null>(null);
  const numbers = search.get('outline')?.split(',').map(Number) ?? null;
  const asked = numbers === null ? null : content.parts.flatMap((part) => (part.number > 0 && numbers.includes(part.number) ? [part.id] : []));
  const choose = (parts: readonly PartId[] | null): void => {
    setChosen(parts);
    if (numbers !== null) setParameters({ outline: null });
  };
  return [chosen ?? asked, choose];
}
