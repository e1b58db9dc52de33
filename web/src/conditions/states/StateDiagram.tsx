import { eventWords, liveTransitions, type StateId, type StateTransitionsModel, type TransitionId } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import { pathThrough, type Point } from '../../drawing/index.ts';
import { STANDING_WORD, TextButton, saveFile } from '../../look/index.ts';
import { LABEL_LINE, MOST_LABELLED, labelLines, layOut, type Drawing, type StateBox, type TransitionLine } from './layout.ts';
import { diagramAsPng, diagramAsSvg } from './diagramFile.ts';
import { laidOut, withState } from './stateEdits.ts';

interface Props {
  readonly name: string;
  readonly model: StateTransitionsModel;
  readonly canEdit: boolean;
  /** What becomes of a state or transition where each is an item; null where none is. */
  readonly ofState: (id: StateId) => Standing | null;
  readonly ofTransition: (id: TransitionId) => Standing | null;
  readonly marked: TransitionId | null;
  readonly onMark: (transition: TransitionId | null) => void;
  readonly onChange: (change: (model: StateTransitionsModel) => StateTransitionsModel) => void;
}

/** A larger diagram is drawn when it is asked for. */
const MOST_DRAWN_AT_ONCE = 150;

/** The diagram: laid out by itself; a state is moved by dragging or with the arrow keys, and stays where it is put. */
export function StateDiagram({ name, model, canEdit, ofState, ofTransition, marked, onMark, onChange }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const [asked, setAsked] = useState(false);
  const large = model.states.length > MOST_DRAWN_AT_ONCE && !asked;
  const drawing = useDrawing(large ? null : model);
  const [dragged, setDragged] = useState<{ readonly id: StateId; readonly at: Point; readonly grip: Point } | null>(null);
  if (large) {
    return (
      <p className="mt-4 text-sm text-ink2">
        A diagram of {model.states.length} states takes a while to lay out. <TextButton onClick={() => setAsked(true)}>Draw it</TextButton>; the table below holds all of it.
      </p>
    );
  }
  if (drawing === null) return <p className="mt-4 text-sm text-ink2">Drawing the diagram …</p>;
  const transitions = new Map(liveTransitions(model).map((t) => [t.id, t]));
  const placeOf = (event: React.PointerEvent): Point => {
    const matrix = svg.current?.getScreenCTM();
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix?.inverse());
    return { x: point.x, y: point.y };
  };
  const put = (id: StateId, at: Point): void => onChange(withState(id, { place: { x: Math.max(2, Math.round(at.x)), y: Math.max(2, Math.round(at.y)) } }));
  const drop = (): void => {
    if (dragged !== null) put(dragged.id, dragged.at);
    setDragged(null);
  };
  const keyMove = (event: React.KeyboardEvent, box: StateBox): void => {
    const step = { ArrowLeft: [-10, 0], ArrowRight: [10, 0], ArrowUp: [0, -10], ArrowDown: [0, 10] }[event.key];
    if (step === undefined || !canEdit) return;
    event.preventDefault();
    put(box.id, { x: box.x + (step[0] ?? 0), y: box.y + (step[1] ?? 0) });
  };
  const moved = model.states.some((s) => s.place !== null);
  return (
    <figure className="mt-3">
      <div className="max-h-[540px] overflow-auto rounded-[5px] border border-rule bg-page">
        <svg
          ref={svg}
          viewBox={`0 0 ${drawing.width} ${drawing.height}`}
          style={{ minWidth: drawing.width * 0.72, maxWidth: drawing.width, width: '100%' }}
          className="mx-auto block select-none"
          role="group"
          aria-label={`State diagram of ${name}`}
          onPointerMove={(e) => dragged !== null && setDragged({ ...dragged, at: { x: placeOf(e).x - dragged.grip.x, y: placeOf(e).y - dragged.grip.y } })}
          onPointerUp={drop}
          onPointerLeave={drop}
        >
          <defs>
            <marker id="arrow" viewBox="0 0 8 8" refX="7.4" refY="4" markerWidth="7" markerHeight="7" orient="auto-start-reverse">
              <path d="M0 0.6 L8 4 L0 7.4z" fill="context-stroke" />
            </marker>
          </defs>
          {drawing.lines.map((line) => {
            const transition = transitions.get(line.id);
            return transition === undefined ? null : <Line key={line.id} line={line} words={eventWords(model, transition)} lines={drawing.lines.length <= MOST_LABELLED || marked === line.id ? labelLines(model, transition) : []} standing={ofTransition(line.id)} marked={marked === line.id} onMark={() => onMark(marked === line.id ? null : line.id)} />;
          })}
          {drawing.states.map((box) => {
            const state = model.states.find((s) => s.id === box.id);
            const at = dragged?.id === box.id ? { ...box, ...dragged.at } : box;
            return state === undefined ? null : (
              <g
                key={box.id}
                tabIndex={canEdit ? 0 : -1}
                role="img"
                aria-label={`State ${state.name}${state.initial ? ', initial' : ''}${state.final ? ', final' : ''}`}
                className={canEdit ? 'cursor-move' : ''}
                onKeyDown={(e) => keyMove(e, box)}
                onPointerDown={(e) => {
                  if (!canEdit) return;
                  const p = placeOf(e);
                  setDragged({ id: box.id, at: box, grip: { x: p.x - box.x, y: p.y - box.y } });
                }}
              >
                <Box box={at} name={state.name} initial={state.initial} final={state.final} standing={ofState(box.id)} />
              </g>
            );
          })}
        </svg>
      </div>
      <figcaption className="mt-1 flex flex-wrap gap-x-4 text-xs text-ink2">
        {drawing.lines.length > MOST_LABELLED && <span>Words are shown for the transition you choose.</span>}
        {canEdit && <span>Drag a state, or move it with the arrow keys.</span>}
        {canEdit && moved && <TextButton onClick={() => onChange(laidOut)}>lay it out again</TextButton>}
        <span className="ml-auto flex gap-3">
          <TextButton onClick={() => svg.current && saveFile(`${name}.svg`, diagramAsSvg(svg.current))}>save as SVG</TextButton>
          <TextButton onClick={() => svg.current && void diagramAsPng(svg.current).then((png) => saveFile(`${name}.png`, png), () => toast.error('The picture could not be made. The SVG holds the same drawing.'))}>save as PNG</TextButton>
        </span>
      </figcaption>
    </figure>
  );
}

/** The drawing of the model, or of an earlier one until it is laid out. One layout at a time: a large one takes long, and only the latest is wanted. */
function useDrawing(model: StateTransitionsModel | null): Drawing | null {
  const [drawing, setDrawing] = useState<Drawing | null>(null);
  const queue = useRef<{ busy: boolean; latest: StateTransitionsModel | null }>({ busy: false, latest: null });
  useEffect(() => {
    const waiting = queue.current;
    waiting.latest = model;
    const next = async (): Promise<void> => {
      const wanted = waiting.latest;
      if (waiting.busy || wanted === null) return;
      waiting.busy = true;
      waiting.latest = null;
      try {
        setDrawing(await layOut(wanted));
      } catch {
        toast.error('The diagram could not be laid out. The table below holds all of it.');
      }
      waiting.busy = false;
      await next();
    };
    void next();
    return () => {
      waiting.latest = null;
    };
  }, [model]);
  return drawing;
}

const STROKE: Partial<Record<Standing, string>> = { shown: 'var(--color-pine)', gap: 'var(--color-brick)', linked: 'var(--color-ochre)', suspect: 'var(--color-brick)', waiting: 'var(--color-plum)' };
const DASH: Partial<Record<Standing, string>> = { gap: '5 3', leftOut: '1 3', suspect: '8 2 2 2', waiting: '3 2' };

function Line({ line, words, lines, standing, marked, onMark }: { readonly line: TransitionLine; readonly words: string; readonly lines: readonly string[]; readonly standing: Standing | null; readonly marked: boolean; readonly onMark: () => void }) {
  const colour = (standing === null ? undefined : STROKE[standing]) ?? 'var(--color-ink2)';
  return (
    <g onClick={onMark} className="cursor-pointer">
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

function Box({ box, name, initial, final, standing }: { readonly box: StateBox; readonly name: string; readonly initial: boolean; readonly final: boolean; readonly standing: Standing | null }) {
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
