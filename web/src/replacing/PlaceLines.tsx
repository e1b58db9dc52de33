import type { ArtefactId } from '@caderno/core/artefacts';
import type { FoundInArtefact } from '@caderno/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, type KeyboardEvent } from 'react';
import { Link } from 'react-router';
import { address, useFrame } from '../frame/index.ts';
import { countOf, drawnLines, usePrinting } from '../look/index.ts';
import { piecesOf, placeWords } from './placeWords.ts';
import type { Ticks } from './useTicks.ts';

type Line = { readonly kind: 'artefact'; readonly id: ArtefactId; readonly places: readonly FoundInArtefact[] } | { readonly kind: 'place'; readonly place: FoundInArtefact };

interface Props {
  readonly places: readonly FoundInArtefact[];
  readonly titleOf: (id: ArtefactId) => string;
  readonly ticks: Ticks;
  /** Whether what stands there would be another text: without anything to put in its place matches are only shown. */
  readonly isReplaced: boolean;
  /** Null: all are here. */
  readonly more: (() => void) | null;
}

/** Every place with its change, under its artefact; arrows move through them, Space ticks. */
export function PlaceLines({ places, titleOf, ticks, isReplaced, more }: Props) {
  const { project } = useFrame();
  const lines = useMemo(() => linesOf(places), [places]);
  const printing = usePrinting();
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: () => 38, overscan: 12 });
  const last = rows.getVirtualItems().at(-1)?.index ?? 0;
  useEffect(() => {
    if (more !== null && last >= lines.length - 20) more();
  }, [last, lines.length, more]);
  const onKeyDown = (event: KeyboardEvent<HTMLElement>): void => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    const boxes = [...(scroller.current?.querySelectorAll<HTMLInputElement>('input[type=checkbox]') ?? [])];
    const at = boxes.indexOf(document.activeElement as HTMLInputElement);
    boxes[at + (event.key === 'ArrowDown' ? 1 : -1)]?.focus();
  };
  return (
    <div ref={scroller} role="list" aria-label="Places" className="min-h-0 flex-1 overflow-y-auto border-t border-rule max-tablet:h-80 print:h-auto print:overflow-visible" onKeyDown={onKeyDown}>
      <div className="relative" style={{ height: rows.getTotalSize() }}>
        {drawnLines(rows, printing).map((row) => {
          const line = lines[row.index];
          if (line === undefined) return null;
          return (
            <div key={row.key} ref={rows.measureElement} data-index={row.index} role="listitem" className="absolute inset-x-0 border-b border-rule text-sm print:static" style={{ top: row.start }}>
              {line.kind === 'artefact' ? (
                <label className="flex items-baseline gap-2.5 bg-page2 px-5 py-1.5">
                  <input type="checkbox" aria-label={`All of ${line.id}`} checked={line.places.every((p) => ticks.has(p))} onChange={(event) => ticks.set(line.places, event.target.checked)} className="translate-y-0.5" />
                  <Link to={address.artefact(project, line.id)} className="min-w-0 truncate hover:underline">
                    <span className="mr-2 font-mono text-xs text-ink2">{line.id}</span>
                    <span className="font-semibold">{titleOf(line.id)}</span>
                  </Link>
                  <span className="ml-auto shrink-0 text-xs text-ink2">{countOf(line.places.length, 'place')}</span>
                </label>
              ) : (
                <label className="grid grid-cols-[auto_9.5rem_1fr] items-baseline gap-2.5 max-[600px]:grid-cols-[auto_6rem_1fr] print:grid-cols-[9.5rem_1fr] px-5 py-1.5 hover:bg-page2">
                  <input type="checkbox" aria-label={`${placeWords(line.place.name)} of ${line.place.id}`} checked={ticks.has(line.place)} onChange={(event) => ticks.set([line.place], event.target.checked)} className="translate-y-0.5" />
                  <span className="truncate text-xs text-ink2" title={placeWords(line.place.name)}>{placeWords(line.place.name)}</span>
                  <Change place={line.place} isReplaced={isReplaced && ticks.has(line.place)} />
                </label>
              )}
            </div>
          );
        })}
      </div>
    </div>
  );
}

function Change({ place, isReplaced }: { readonly place: FoundInArtefact; readonly isReplaced: boolean }) {
  return (
    <span className="min-w-0 whitespace-pre-wrap break-words leading-5">
      {piecesOf(place.text, place.matches).map(({ kind, text }, i) => {
        if (kind === 'same') return <span key={i}>{text}</span>;
        if (kind === 'in') return isReplaced ? <ins key={i} className="bg-pine-wash text-pine no-underline">{text}</ins> : null;
        return isReplaced ? <del key={i} className="bg-brick-wash text-brick">{text}</del> : <mark key={i} className="bg-ochre-wash text-ink">{text}</mark>;
      })}
    </span>
  );
}

/** Places come in the order of their artefacts. */
function linesOf(places: readonly FoundInArtefact[]): Line[] {
  const byId = new Map<ArtefactId, FoundInArtefact[]>();
  for (const place of places) {
    const there = byId.get(place.id);
    if (there === undefined) byId.set(place.id, [place]);
    else there.push(place);
  }
  return [...byId].flatMap(([id, all]): Line[] => [{ kind: 'artefact', id, places: all }, ...all.map((place): Line => ({ kind: 'place', place }))]);
}
