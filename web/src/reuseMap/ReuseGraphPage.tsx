import { usersOf, usesOf, type ReusableId } from '@caderno/core/shared';
import { useCallback, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { useQuery } from '@tanstack/react-query';
import { failureSentence, useReuseGraph } from '../api/index.ts';
import { Loading } from '../artefacts/index.ts';
import { address, useFrame, useParameters } from '../frame/index.ts';
import { Button, Choose, Empty, TextButton, Waiting, countOf, TextBox } from '../look/index.ts';
import { GraphDrawing } from './GraphDrawing.tsx';
import { layOutReuse, type ReuseEdge, type ReuseNode } from './layoutReuse.ts';

/** The project's reuse, drawn: what uses stands left of what it uses; the reach of a change is marked. */
export function ReuseGraphPage() {
  const { project } = useFrame();
  const { data, error } = useReuseGraph(project);
  if (data === undefined) return <Loading error={error} />;
  if (data.nodes.length === 0) return <Empty title="Nothing is reused yet">As soon as a case uses shared steps or calls another case, both stand here with a line between them.</Empty>;
  return <Reuse nodes={data.nodes} edges={data.edges} leftOut={data.leftOut} />;
}

const ZOOMS = [0.3, 0.45, 0.6, 0.7, 0.8, 0.9, 1, 1.25] as const;
/** Smaller than this nobody reads the titles: a larger drawing is scrolled. */
const LEAST_READ = 0.8;

function Reuse({ nodes, edges, leftOut }: { readonly nodes: readonly ReuseNode[]; readonly edges: readonly ReuseEdge[]; readonly leftOut: number }) {
  const { project } = useFrame();
  const [search, setParameters] = useParameters();
  const [words, setWords] = useState('');
  const [module, setModule] = useState('');
  const [chosenZoom, setZoom] = useState<number | null>(null);
  const [room, setRoom] = useState(0);
  const measure = useCallback((sheet: HTMLDivElement | null) => setRoom(sheet?.clientWidth ?? 0), []);
  const of = nodes.find((n) => n.id === search.get('of')) ?? null;
  const only = search.has('only');
  const users = useMemo(() => (of === null ? [] : usersOf(edges, of.id)), [edges, of]);
  const uses = useMemo(() => (of === null ? [] : usesOf(edges, of.id)), [edges, of]);
  const shown = useMemo(() => {
    const connected = new Set<ReusableId>(of === null ? [] : [of.id, ...users.map((u) => u.id), ...uses.map((u) => u.id)]);
    return filtered(nodes, edges, { words, module, only: only && of !== null ? connected : null });
  }, [edges, module, nodes, of, only, users, uses, words]);
  const laying = useQuery({ queryKey: [project, 'drawing', shown.nodes.map((n) => n.id).join(' '), shown.edges.map((e) => `${e.from} ${e.to}`).join(' ')], queryFn: () => layOutReuse(shown.nodes, shown.edges), retry: false });
  const drawing = laying.data;
  const fitting = Math.max(ZOOMS.findIndex((z) => z >= LEAST_READ), ZOOMS.findLastIndex((z) => z <= 1 && (drawing?.width ?? 0) * z <= room));
  const zoom = chosenZoom ?? fitting;
  const mark = (id: ReusableId | null): void => setParameters(id === null ? { of: null, only: null } : { of: id });
  const modules = [...new Set(nodes.map((n) => n.module))].sort();
  return (
    <div className="flex h-full flex-col">
      <header className="border-b border-rule px-6 pb-3 pt-5">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="font-serif text-xl font-semibold">Reuse</h1>
          <span className="text-xs text-ink2">
            {countOf(shown.nodes.length, 'artefact')}, {countOf(shown.edges.length, 'use')}
            {leftOut > 0 && `; ${leftOut} with the fewest uses are not drawn`}
          </span>
          <TextBox aria-label="Filter by words of an id or a title" placeholder="Words of a title" value={words} onChange={setWords} className="ml-auto w-48 bg-page2" />
          <Choose label="Module" value={module} options={[{ value: '', name: 'every module' }, ...modules.filter((m) => m !== '').map((m) => ({ value: m, name: m }))]} onChange={setModule} />
          <span className="flex items-center gap-1">
            <Button aria-label="Smaller" title="Smaller" disabled={zoom === 0} onClick={() => setZoom(zoom - 1)}>
              −
            </Button>
            <TextButton className="w-12 text-center text-xs tabular-nums" title="As large as the width allows" onClick={() => setZoom(null)}>
              {Math.round((ZOOMS[zoom] ?? 1) * 100)} %
            </TextButton>
            <Button aria-label="Larger" title="Larger" disabled={zoom === ZOOMS.length - 1} onClick={() => setZoom(zoom + 1)}>
              +
            </Button>
          </span>
        </div>
        <p className="mt-2 min-h-6 text-sm">
          {of === null ? (
            <span className="text-ink2">Point at one to see what a change of it reaches; click it to keep that marked. A line goes from what uses to what is used; a dashed one is pinned, or follows what is agreed.</span>
          ) : (
            <>
              <Link className="font-mono text-xs underline decoration-rule2" to={address.artefact(project, of.id)}>
                {of.id}
              </Link>{' '}
              <strong>{of.title}</strong>: a change reaches {countOf(users.filter((u) => u.follows).length, 'user')}
              {users.some((u) => !u.follows) && `, ${countOf(users.filter((u) => !u.follows).length, 'more')} behind a pin`}; it uses {uses.length}.{' '}
              <Link className="ml-2 underline decoration-rule2" to={address.artefact(project, of.id)}>
                open it
              </Link>
              <TextButton className="ml-3" onClick={() => setParameters({ only: only ? null : '1' })}>
                {only ? 'show the whole project' : 'only what is connected'}
              </TextButton>
              <TextButton className="ml-3 text-ink2" onClick={() => mark(null)}>
                unmark
              </TextButton>
            </>
          )}
        </p>
      </header>
      <div ref={measure} className="min-h-0 flex-1 overflow-auto bg-page2">
        {laying.error !== null ? (
          <Empty title="The drawing failed" action={<Button onClick={() => void laying.refetch()}>Try again</Button>}>
            {failureSentence(laying.error)} The same uses stand in the lists of each artefact.
          </Empty>
        ) : drawing === undefined ? (
          <Waiting onRetry={() => void laying.refetch()}>Drawing …</Waiting>
        ) : ( <GraphDrawing drawing={drawing} edges={edges} zoom={ZOOMS[zoom] ?? 1} of={of?.id ?? null} onMark={mark} />)}
        {shown.nodes.length === 0 && <p className="p-6 text-sm text-ink2">None has these words in this module.</p>}
      </div>
    </div>
  );
}

interface Filter {
  readonly words: string;
  readonly module: string;
  readonly only: ReadonlySet<ReusableId> | null;
}

/** What fits the filter and what it is directly connected with: a node without its neighbours says nothing. */
function filtered(nodes: readonly ReuseNode[], edges: readonly ReuseEdge[], { words, module, only }: Filter): { readonly nodes: readonly ReuseNode[]; readonly edges: readonly ReuseEdge[] } {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  const fitting = new Set<ReusableId>(nodes.filter((n) => (module === '' || n.module === module) && wanted.every((w) => `${n.id} ${n.title}`.toLowerCase().includes(w))).map((n) => n.id));
  const all = wanted.length === 0 && module === '';
  const near = all ? fitting : new Set<ReusableId>([...fitting, ...edges.flatMap((e) => (fitting.has(e.from) || fitting.has(e.to) ? [e.from, e.to] : []))]);
  const isShown = (id: ReusableId): boolean => near.has(id) && (only === null || only.has(id));
  return { nodes: nodes.filter((n) => isShown(n.id)), edges: edges.filter((e) => isShown(e.from) && isShown(e.to)) };
}
