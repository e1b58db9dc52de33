import { at, warning, type FileProblem } from './problem.ts';
import type { SourceRecord } from './sourceDocument.ts';

/** A part of a document: what begins with a heading, or with an id of its own. */
export interface Section {
  readonly line: number;
  /** Of headings from 1; deeper ones stand below it. */
  readonly depth: number;
  /** Written into it; null: none is. */
  readonly id: string | null;
  readonly title: string;
  /** What a record of it holds behind its id and title. */
  readonly more: readonly string[];
}

interface Open {
  readonly depth: number;
  readonly id: string;
  readonly path: string;
}

/** The parts of a document as records, each below the one it stands in. Without an id the path of titles is it, so that the same file finds the same again. */
export function recordsOfSections(sections: readonly Section[], problems: FileProblem[]): SourceRecord[] {
  const open: Open[] = [];
  const used = new Map<string, number>();
  return sections.map(({ line, depth, id, title, more }) => {
    while (open.length > 0 && (open.at(-1)?.depth ?? 0) >= depth) open.pop();
    const above = open.at(-1);
    if (above !== undefined && depth > above.depth + 1) problems.push(warning({ code: 'heading_level_skipped', from: above.depth, to: depth }, at(line)));
    const path = `${above?.path ?? ''}/${title}`;
    // The same title twice in one place is told apart by its turn.
    const turn = (used.get(path) ?? 0) + 1;
    used.set(path, turn);
    const own = id ?? (turn === 1 ? path : `${path} (${turn})`);
    open.push({ depth, id: own, path });
    return { line, cells: [own, title, ...more], place: { id: own, parent: above?.id ?? null }, relations: [] };
  });
}

/** An id written into a heading: `REQ-12 Title`, `REQ-12: Title`, `[REQ-12] Title`. */
const LEADING_ID = /^\[?([A-Za-z][A-Za-z0-9]*(?:[-_.][A-Za-z0-9]+)*[-_.]\d+(?:\.\d+)*)\]?(?:\s*[:–—-]\s+|\s+)(?=\S)/;
/** `Title {#REQ-12}` */
const TRAILING_ID = /\s*\{#([^\s{}]{1,200})\}\s*$/;

/** What a line begins or ends with as its id, and the rest of it; null: it has none. */
export function idAndTitle(line: string): { readonly id: string | null; readonly title: string } {
  const trailing = TRAILING_ID.exec(line);
  if (trailing !== null) return { id: trailing[1] ?? null, title: line.slice(0, trailing.index) };
  const leading = LEADING_ID.exec(line);
  return leading === null ? { id: null, title: line } : { id: leading[1] ?? null, title: line.slice(leading[0].length) };
}
