import { usersOf, type ReusableId } from '@caderno/core/shared';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { pathThrough } from '../drawing/index.ts';
import { address, useFrame } from '../frame/index.ts';
import { NODE_HEIGHT, NODE_WIDTH, keyOfEdge, type PlacedNode, type ReuseDrawing, type ReuseEdge } from './layoutReuse.ts';

interface Props {
  readonly drawing: ReuseDrawing;
  /** All uses of the project: a change passes through what is not drawn, too. */
  readonly edges: readonly ReuseEdge[];
  readonly zoom: number;
  /** Whose reach is marked. */
  readonly of: ReusableId | null;
  readonly onMark: (id: ReusableId) => void;
}

const LONGEST_TITLE = 24;

/** How far a node is from a change of what is marked. */
type Reached = 'marked' | 'reached' | 'behindPin' | 'apart';

/** Shared steps with a stitched edge, cases with a plain one; what a change reaches is ochre, what a pin keeps from it is dashed. */
export function GraphDrawing({ drawing, edges, zoom, of, onMark }: Props) {
  const { project } = useFrame();
  const navigate = useNavigate();
  const [pointed, setPointed] = useState<ReusableId | null>(null);
  const marked = pointed ?? of;
  const users = useMemo(() => new Map(marked === null ? [] : usersOf(edges, marked).map((u) => [u.id, u.follows])), [edges, marked]);
  const reachedOf = (id: ReusableId): Reached => {
    if (id === marked) return 'marked';
    const follows = users.get(id);
    return follows === undefined ? 'apart' : follows ? 'reached' : 'behindPin';
  };
  const isReached = (edge: ReuseEdge): boolean => edge.pinned === null && ['marked', 'reached'].includes(reachedOf(edge.to)) && reachedOf(edge.from) === 'reached';
  return (
    <svg role="group" aria-label="Reuse, drawn" width={drawing.width * zoom} height={drawing.height * zoom} viewBox={`0 0 ${drawing.width} ${drawing.height}`} className="mx-auto block">
      {drawing.edges.map(({ edge, points }) => (
        <path
          key={keyOfEdge(edge)}
          d={pathThrough(points)}
          fill="none"
          strokeWidth={isReached(edge) ? 2 : 1}
          strokeDasharray={edge.pinned === null ? undefined : '4 4'}
          className={isReached(edge) ? 'stroke-ochre' : marked === null ? 'stroke-ink3' : 'stroke-rule2'}
        />
      ))}
      {drawing.nodes.map((placed) => (
        <Node key={placed.node.id} placed={placed} reached={reachedOf(placed.node.id)} faint={marked !== null} onPoint={setPointed} onMark={onMark} onOpen={() => void navigate(address.artefact(project, placed.node.id))} />
      ))}
    </svg>
  );
}

interface NodeProps {
  readonly placed: PlacedNode;
  readonly reached: Reached;
  /** Something is marked: what it does not reach steps back. */
  readonly faint: boolean;
  readonly onPoint: (id: ReusableId | null) => void;
  readonly onMark: (id: ReusableId) => void;
  readonly onOpen: () => void;
}

const REACHED_LOOK: Record<Reached, string> = { marked: 'fill-blue-wash stroke-blue', reached: 'fill-ochre-wash stroke-ochre', behindPin: 'fill-page stroke-ochre', apart: 'fill-page stroke-ink3' };
const REACHED_WORD: Record<Reached, string> = { marked: 'marked', reached: 'reached by a change', behindPin: 'kept from a change by a pin', apart: '' };

function Node({ placed: { node, x, y }, reached, faint, onPoint, onMark, onOpen }: NodeProps) {
  const isShared = node.id.startsWith('S-');
  const title = node.title.length > LONGEST_TITLE ? `${node.title.slice(0, LONGEST_TITLE - 1)}…` : node.title;
  const words = [isShared ? 'shared steps' : 'case', node.id, node.title, REACHED_WORD[reached], node.state === 'withdrawn' ? 'withdrawn' : ''].filter(Boolean).join(', ');
  return (
    <g
      role="button"
      tabIndex={0}
      aria-label={words}
      transform={`translate(${x} ${y})`}
      className="cursor-pointer outline-none [&:focus-visible>rect]:stroke-blue [&:focus-visible>rect]:stroke-2"
      onMouseEnter={() => onPoint(node.id)}
      onMouseLeave={() => onPoint(null)}
      onFocus={() => onPoint(node.id)}
      onBlur={() => onPoint(null)}
      onClick={() => onMark(node.id)}
      onDoubleClick={onOpen}
      onKeyDown={(event) => {
        if (event.key === 'Enter') onOpen();
        if (event.key === ' ') {
          event.preventDefault();
          onMark(node.id);
        }
      }}
    >
      <title>{`${words} – a double click opens it`}</title>
      <rect width={NODE_WIDTH} height={NODE_HEIGHT} rx={4} className={REACHED_LOOK[reached]} strokeWidth={reached === 'apart' ? 1 : 1.5} strokeDasharray={isShared ? '5 3' : undefined} />
      <text x={8} y={19} className="fill-ink2 font-mono text-fine">
        {node.id}
      </text>
      <text x={50} y={19} className={`text-[12px] ${faint && reached === 'apart' ? 'fill-ink2' : 'fill-ink'} ${node.state === 'withdrawn' ? 'line-through' : ''}`}>
        {title}
      </text>
    </g>
  );
}
