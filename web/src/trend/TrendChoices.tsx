import { TREND_PARTS, measuresOf } from '@caderno/core/trend';
import { useListed } from '../api/index.ts';
import { PickArtefact } from '../artefacts/index.ts';
import { useFrame } from '../frame/index.ts';
import { Choose } from '../look/index.ts';
import { canBeBars } from './drawnTrend.ts';
import { SPANS, type TrendViewing } from './trendView.ts';
import { MEASURE_WORD, PART_WORD } from './trendWords.ts';

const SPAN_WORD = { 0: 'since the beginning', 90: 'the last 90 days', 30: 'the last 30 days', 7: 'the last 7 days' } as const;

/** What is told, of what, since when, and how it is drawn. */
export function TrendChoices({ view, setParameters }: TrendViewing) {
  const { part, measure, span, drawn, requirement } = view;
  return (
    <div className="mt-3 flex flex-wrap items-center gap-2">
      <Choose label="Show" showLabel value={measure} options={measuresOf(part).map((value) => ({ value, name: MEASURE_WORD[value] }))} onChange={(show) => setParameters({ show })} />
      <Choose label="Of" showLabel value={part} options={TREND_PARTS.map((value) => ({ value, name: PART_WORD[value] }))} onChange={(of) => setParameters({ of })} />
      {part === 'requirement' && <PickRequirement chosen={requirement} onPick={(id) => setParameters({ requirement: id })} />}
      <Choose label="Since" value={String(span)} options={SPANS.map((days) => ({ value: String(days), name: SPAN_WORD[days] }))} onChange={(days) => setParameters({ days: days === '0' ? null : days, at: null })} />
      {canBeBars(view) && <Choose label="Drawn as" value={drawn} options={[{ value: 'lines', name: 'as lines' }, { value: 'bars', name: 'as bars' }]} onChange={(as) => setParameters({ as: as === 'lines' ? null : as })} />}
    </div>
  );
}

function PickRequirement({ chosen, onPick }: { readonly chosen: string | null; readonly onPick: (id: string) => void }) {
  const { project } = useFrame();
  const listed = useListed(project, 'requirement', '').data ?? [];
  const title = listed.find((r) => r.id === chosen)?.title;
  return <PickArtefact label="Requirement" placeholder={chosen === null ? 'Which requirement?' : `${chosen} ${title ?? ''}`} offered={listed} onPick={onPick} className="w-64!" />;
}
