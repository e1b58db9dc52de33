import { FILE_LIMITS } from './limits.ts';

/** What begins a line of Markdown: indentation, quotation marks, and the marks of list items. */
const CONTAINERS = /^(?:[ \t>]|(?:[-+*]|\d{1,9}[.)])(?=[ \t]|$))*/;

/**
 * How deep lists and quotations are nested at most, never less than they are: two columns of indentation count as a
 * level. A reader of Markdown takes time and stack with the depth of every line.
 */
export function markdownNesting(text: string): number {
  let deepest = 0;
  for (const line of text.split('\n')) {
    const [begin = ''] = CONTAINERS.exec(line) ?? [];
    if (begin.length <= deepest) continue;
    const marks = begin.match(/>|[-+*]|\d+[.)]/g)?.length ?? 0;
    const indentation = begin.match(/[ \t]/g)?.reduce((columns, c) => columns + (c === '\t' ? 4 : 1), 0) ?? 0;
    deepest = Math.max(deepest, marks + Math.floor(indentation / 2));
  }
  return deepest;
}

export function isTooDeep(text: string): boolean {
  return markdownNesting(text) > FILE_LIMITS.markdownDepth;
}
