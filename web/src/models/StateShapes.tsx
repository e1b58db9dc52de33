import type { Standing } from '@caderno/core/coverage';
import { pathThrough } from '../drawing/index.ts';
import { STANDING_WORD } from '../look/index.ts';
import { LABEL_LINE, type StateBox, type TransitionLine } from './stateLayout.ts';

const STROKE: Partial<Record<Standing, string>> = { shown: 'var(--color-pine)', gap: 'var(--color-brick)', linked: 'var(--color-ochre)', suspect: 'var(--color-brick)', waiting: 'var(--color-plum)' };
const DASH: Partial<Record<Standing, string>> = { gap: '5 3', leftOut: '1 3', suspect: '8 2 2 2', waiting: '3 2' };

interface LineProps {
  readonly line: TransitionLine;
  readonly words: string;
  /** What stands at it; nothing where there are too many. */
  readonly lines: readonly string[];
  readonly standing: Standing | null;
  readonly marked: boolean;
  readonly onMark?: () => void;
}

/** A transition from state to state. */
export function StateLine({ line, words, lines, standing, marked, onMark }: LineProps) {
  const colour = (standing === null ? undefined : STROKE[standing]) ?? 'var(--color-ink2)';
  return (
    <g onClick={onMark} className={onMark === undefined ? undefined : 'cursor-pointer'}>
      <title>{standing === null ? words : `${words}: ${STANDING_WORD[standing]}`}</title>
      <path d={pathThrough(line.points)} fill="none" stroke="transparent" strokeWidth="12" />
      <path d={pathThrough(line.points)} fill="none" stroke={colour} strokeWidth={marked ? 2.8 : 1.5} strokeDasharray={standing === null ? undefined : DASH[standing]} markerEnd="url(#arrow)" />
      {lines.map((text, i) => (
        <text key={i} x={line.label.x} y={line.label.y + 4 + (i - (lines.length - 1) / 2) * LABEL_LINE} textAnchor="middle" fontSize="11.5" fontWeight={marked ? 700 : 500} fill={colour} stroke="var(--color-page)" strokeWidth="3.5" paintOrder="stroke">
          {text}
        </text>
      ))}
    </g>
  );
}

/** A state as a box: initial ones have an arrow before them, final ones two edges. */
export function StateBoxDrawn({ box, name, initial, final, standing }: { readonly box: StateBox; readonly name: string; readonly initial: boolean; readonly final: boolean; readonly standing: Standing | null }) {
  const colour = (standing === null ? undefined : STROKE[standing]) ?? 'var(--color-ink)';
  return (
    <>
      <rect x={box.x} y={box.y} width={box.width} height={box.height} rx={17} fill="var(--color-page2)" stroke={colour} strokeWidth="1.5" strokeDasharray={standing === null ? undefined : DASH[standing]} />
      {final && <rect x={box.x + 3} y={box.y + 3} width={box.width - 6} height={box.height - 6} rx={14} fill="none" stroke={colour} />}
      {initial && <path d={`M${box.x - 11} ${box.y + box.height / 2 - 6} l8 6 l-8 6z`} fill="var(--color-ink)" />}
      <text x={box.x + box.width / 2} y={box.y + box.height / 2 + 4.5} textAnchor="middle" fontSize="13" fontWeight="600" fill="var(--color-ink)">
        {name.length > 24 ? `${name.slice(0, 23)}…` : name}
      </text>
    </>
  );
}

/** What the lines end in; once a drawing. */
export function ArrowHead() {
  return (
    <defs>
      <marker id="arrow" viewBox="0 0 8 8" refX="7.4" refY="4" markerWidth="7" markerHeight="7" orient="auto-start-reverse">
        <path d="M0 0.6 L8 4 L0 7.4z" fill="context-stroke" />
      </marker>
    </defs>
  );
}
