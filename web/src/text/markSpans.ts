import type { Element, ElementContent, Root, RootContent, Text } from 'hast';

/** A stretch of the Markdown source to be marked, with the class it gets. */
export interface TextSpan {
  readonly id: string;
  readonly start: number;
  readonly end: number;
  readonly className: string;
  readonly title: string;
}

/**
 * A rehype plugin: wraps every text node in pieces that know their place in the source (`data-start`), cut at the
 * ends of the spans. It runs after the sanitiser, as it adds nothing but our own attributes.
 */
export function markSpans(spans: readonly TextSpan[]) {
  return (tree: Root): void => {
    tree.children = tree.children.flatMap((child): RootContent[] => marked(child, spans) ?? [child]);
  };
}

/** Null for what holds no text. */
function marked(node: RootContent, spans: readonly TextSpan[]): ElementContent[] | null {
  if (node.type === 'text') return piecesOf(node, spans);
  if (node.type !== 'element') return null;
  return [{ ...node, children: node.children.flatMap((child) => marked(child, spans) ?? [child]) }];
}

function piecesOf(node: Text, spans: readonly TextSpan[]): ElementContent[] {
  const start = node.position?.start.offset;
  const end = node.position?.end.offset;
  if (start === undefined || end === undefined) return [node];
  // Escapes and folded white space make the text shorter than its source: then the node is one piece.
  if (end - start !== node.value.length) return [piece(node.value, start, end, spans)];
  const cuts = new Set([start, end]);
  for (const span of spans) for (const cut of [span.start, span.end]) if (cut > start && cut < end) cuts.add(cut);
  const sorted = [...cuts].sort((a, b) => a - b);
  return sorted.slice(0, -1).map((from, i) => {
    const to = sorted[i + 1] ?? end;
    return piece(node.value.slice(from - start, to - start), from, to, spans);
  });
}

function piece(value: string, from: number, to: number, spans: readonly TextSpan[]): Element {
  const inside = spans.filter((s) => s.start < to && s.end > from);
  const properties: Element['properties'] = { dataStart: from, dataEnd: to };
  if (inside.length > 0) {
    properties.className = inside.map((s) => s.className);
    properties.title = inside.map((s) => s.title).join(', ');
    properties.dataSpans = inside.map((s) => s.id).join(' ');
  }
  return { type: 'element', tagName: 'span', properties, children: [{ type: 'text', value }] };
}
