import { eventWords, liveTransitions, type StateId, type StateTransitionsModel, type TransitionId } from '@caderno/core/conditions';
import type { Standing } from '@caderno/core/coverage';
import { useEffect, useRef, useState } from 'react';
import { toast } from 'sonner';
import type { Point } from '../../drawing/index.ts';
import { TextButton, saveFile } from '../../look/index.ts';
import { ArrowHead, MOST_LABELLED, StateBoxDrawn, StateLine, labelLines, layOut, type StateBox, type StateDrawing } from '../../models/index.ts';
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
      <div className="max-h-[540px] overflow-auto rounded-field border border-rule bg-page">
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
          <ArrowHead />
          {drawing.lines.map((line) => {
            const transition = transitions.get(line.id);
            return transition === undefined ? null : <StateLine key={line.id} line={line} words={eventWords(model, transition)} lines={drawing.lines.length <= MOST_LABELLED || marked === line.id ? labelLines(model, transition) : []} standing={ofTransition(line.id)} marked={marked === line.id} onMark={() => onMark(marked === line.id ? null : line.id)} />;
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
                <StateBoxDrawn box={at} name={state.name} initial={state.initial} final={state.final} standing={ofState(box.id)} />
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
function useDrawing(model: StateTransitionsModel | null): StateDrawing | null {
  const [drawing, setDrawing] = useState<StateDrawing | null>(null);
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
