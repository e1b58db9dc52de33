import { readIntervals, type Field, type ReadInterval } from '@caderno/core/conditions';
import type { ItemCoverage } from '@caderno/core/coverage';
import { isOrdered } from '@caderno/core/values';
import { useRef } from 'react';
import { STANDING_WORD, StandingShape } from '../look/index.ts';

/** An item and how it stands. */
export type StandingItem = Pick<ItemCoverage, 'item' | 'standing'>;

interface Props {
  readonly field: Field;
  readonly items: readonly StandingItem[];
  /** Moves the boundary between two intervals by steps; absent for readers. */
  readonly onMove?: (lower: string, upper: string, steps: bigint) => void;
}

const WIDTH = 660;
const LEFT = 10;
const LABEL_CHARS = 13;

/**
 * The intervals of a field as a line, every boundary with its values beneath, the other values below. Intervals are
 * drawn equally wide, whatever they span: what matters is their order and their edges.
 */
export function NumberLine({ field, items, onMove }: Props) {
  const { type } = field;
  const own = items.filter((i) => i.item.field === field.id);
  const others = own.filter((i) => i.item.kind === 'class' || !isOrdered(type));
  const intervals = readIntervals(type, field.intervals);
  return (
    <figure className="mt-3" aria-label={`${field.name}: ${intervals.map((i) => i.interval.name).join(', ')}`}>
      {intervals.length > 0 && <Line intervals={intervals} items={own} unit={field.unit} {...(onMove === undefined ? {} : { onMove })} />}
      {others.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-1.5 pl-2.5 text-sm">
          <span className="text-xs text-ink2">{isOrdered(type) ? 'Other kinds of value:' : 'Values:'}</span>
          {others.map(({ item, standing }) => (
            <span key={item.key} className="inline-flex items-center gap-1.5" title={STANDING_WORD[standing]}>
              <StandingShape standing={standing} />
              <span className={item.valid ? 'text-pine' : 'text-brick'}>{item.name}</span>
            </span>
          ))}
        </div>
      )}
    </figure>
  );
}

function Line({ intervals, items, unit, onMove }: { readonly intervals: readonly ReadInterval[]; readonly items: readonly StandingItem[]; readonly unit: string } & Pick<Props, 'onMove'>) {
  const span = (WIDTH - 2 * LEFT) / intervals.length;
  const at = (i: number): number => LEFT + i * span;
  return (
    <svg viewBox={`0 0 ${WIDTH} 102`} className="w-full max-w-[720px]" role={onMove === undefined ? 'img' : 'group'} aria-label="Number line">
      {intervals.map(({ interval }, i) => (
        <g key={interval.id}>
          <rect x={at(i)} y={28} width={span} height={32} fill={interval.valid ? 'var(--color-pine-wash)' : 'var(--color-brick-wash)'} />
          <text x={at(i) + span / 2} y={48.5} textAnchor="middle" fontSize="12" fill={interval.valid ? 'var(--color-pine)' : 'var(--color-brick)'}>
            {shorten(`${interval.name}${interval.outcome === '' || span < 150 ? '' : ` — ${interval.outcome}`}`, span / 6.4)}
          </text>
        </g>
      ))}
      <line x1={LEFT} x2={WIDTH - LEFT} y1={60} y2={60} stroke="var(--color-ink)" strokeWidth="1.5" />
      {intervals.slice(1).map((next, i) => (
        <Boundary key={next.interval.id} x={at(i + 1)} lower={intervals[i]} upper={next} {...(onMove === undefined ? {} : { onMove })} />
      ))}
      {intervals.map((read, i) => (
        <Values key={read.interval.id} read={read} x={at(i)} span={span} items={items} alone={intervals.length === 1} />
      ))}
      {unit !== '' && (
        <text x={WIDTH - LEFT} y={20} textAnchor="end" fontSize="11" fill="var(--color-ink2)">
          {unit}
        </text>
      )}
    </svg>
  );
}

/** Pixels dragged for one step of the type. */
const PIXELS_A_STEP = 4;
const KEY_STEPS: Readonly<Record<string, bigint>> = { ArrowLeft: -1n, ArrowDown: -1n, ArrowRight: 1n, ArrowUp: 1n, PageDown: -10n, PageUp: 10n };

/** A clean boundary is a stroke with an arc, dragged or moved by keys; a hole or an overlap stands out in brick. */
function Boundary({ x, lower, upper, onMove }: { readonly x: number; readonly lower: ReadInterval | undefined; readonly upper: ReadInterval } & Pick<Props, 'onMove'>) {
  const grip = useRef<{ x: number; taken: number } | null>(null);
  const clean = lower !== undefined && lower.to !== null && upper.from !== null && lower.to + 1n === upper.from;
  const hole = lower !== undefined && lower.to !== null && upper.from !== null && upper.from > lower.to + 1n;
  const moves = clean && onMove !== undefined;
  const move = (steps: bigint): void => {
    if (lower !== undefined) onMove?.(lower.interval.id, upper.interval.id, steps);
  };
  const drag = (event: React.PointerEvent): void => {
    if (grip.current === null) return;
    const steps = Math.trunc((event.clientX - grip.current.x) / PIXELS_A_STEP);
    if (steps !== grip.current.taken) move(BigInt(steps - grip.current.taken));
    grip.current.taken = steps;
  };
  const slider = moves
    ? {
        role: 'slider',
        tabIndex: 0,
        'aria-label': `Boundary between ${lower.interval.name} and ${upper.interval.name}`,
        'aria-valuenow': Number(upper.from),
        'aria-valuetext': upper.interval.from,
        className: 'cursor-ew-resize touch-none',
        onKeyDown: (event: React.KeyboardEvent) => {
          const steps = KEY_STEPS[event.key];
          if (steps === undefined) return;
          event.preventDefault();
          move(steps);
        },
        onPointerDown: (event: React.PointerEvent) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          grip.current = { x: event.clientX, taken: 0 };
        },
        onPointerMove: drag,
        onPointerUp: () => {
          grip.current = null;
        },
      }
    : {};
  return (
    <g {...slider}>
      {moves && <rect x={x - 10} y={8} width={20} height={60} fill="transparent" />}
      <line x1={x} x2={x} y1={20} y2={66} stroke={clean ? 'var(--color-ink)' : 'var(--color-brick)'} strokeWidth={clean ? 1.5 : 2.5} strokeDasharray={clean ? undefined : '3 2'} />
      {clean ? (
        <path d={`M${x - 14} 20v-3a10 8 0 0 1 10-8h8a10 8 0 0 1 10 8v3`} fill="none" stroke="var(--color-ink3)" />
      ) : (
        <text x={x} y={14} textAnchor="middle" fontSize="11" fontWeight="600" fill="var(--color-brick)">
          {hole ? 'hole' : 'overlap'}
        </text>
      )}
    </g>
  );
}

/** Beneath each interval: the boundary values at its edges, and the marks of the partition in its middle. */
function Values({ read, x, span, items, alone }: { readonly read: ReadInterval; readonly x: number; readonly span: number; readonly items: readonly StandingItem[]; readonly alone: boolean }) {
  const { interval } = read;
  const edges = items.filter((i) => i.item.kind === 'boundary');
  const first = edges.find((i) => i.item.name === `first of ${interval.name}` || i.item.name === `only value of ${interval.name}`);
  const last = edges.find((i) => i.item.name === `last of ${interval.name}`);
  const below = alone ? edges.find((i) => i.item.name === `just below ${interval.name}`) : undefined;
  const above = alone ? edges.find((i) => i.item.name === `just above ${interval.name}`) : undefined;
  const partition = items.find((i) => i.item.kind === 'partition' && i.item.name === interval.name);
  return (
    <g>
      {below !== undefined && <Value x={x + 40} anchor="middle" item={below} />}
      {first !== undefined && <Value x={x + 5} anchor="start" item={first} />}
      {partition !== undefined && <Value x={x + span / 2} anchor="middle" item={partition} />}
      {last !== undefined && <Value x={x + span - 5} anchor="end" item={last} />}
      {above !== undefined && <Value x={x + span - 40} anchor="middle" item={above} />}
    </g>
  );
}

const SHAPE_OFFSET = { start: 0, middle: -5, end: -10 } as const;

function Value({ x, anchor, item: { item, standing } }: { readonly x: number; readonly anchor: keyof typeof SHAPE_OFFSET; readonly item: StandingItem }) {
  return (
    <g>
      <title>{`${item.name} ${item.extent}: ${STANDING_WORD[standing]}`}</title>
      <svg x={x + SHAPE_OFFSET[anchor]} y={71} width={10} height={10} viewBox="0 0 10 10" overflow="visible">
        <StandingShape standing={standing} />
      </svg>
      {item.kind === 'boundary' && (
        <text x={x} y={95} textAnchor={anchor} fontSize="10.5" fontFamily="var(--font-mono)" fill="var(--color-ink)">
          {shorten(item.extent.replace(' characters', ''), LABEL_CHARS)}
        </text>
      )}
    </g>
  );
}

function shorten(text: string, most: number): string {
  return text.length <= most ? text : `${text.slice(0, Math.max(1, Math.floor(most) - 1))}…`;
}
