import { percentDown, type Ratio } from './standing.ts';

/** Widths of text in the font of a badge are not known here: each character is given as much as a wide one takes. */
const CHARACTER = 6.6;
const PADDING = 8;
const HEIGHT = 20;

/** From which share on a badge is green, and from which it is yellow. */
const [GOOD, FAIR] = [80, 50];
const COLOUR = { good: '#2d6a52', fair: '#8a540a', poor: '#ae4030', none: '#5a5f6b' } as const;

/** A share as a small picture for a page that does not know Caderno (SVG 1.1); it asks nothing of any network. */
export function badge(label: string, ratio: Ratio): string {
  const percent = percentDown(ratio);
  const value = percent === null ? 'nothing to show' : `${percent} %`;
  const colour = percent === null ? COLOUR.none : percent >= GOOD ? COLOUR.good : percent >= FAIR ? COLOUR.fair : COLOUR.poor;
  const [left, right] = [label, value].map((text) => Math.ceil([...text].length * CHARACTER) + 2 * PADDING) as [number, number];
  const text = (words: string, middle: number): string => `<text x="${middle}" y="14" text-anchor="middle">${escaped(words)}</text>`;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${left + right}" height="${HEIGHT}" role="img" aria-label="${escaped(`${label}: ${value}`)}">`,
    `<title>${escaped(`${label}: ${value}`)}</title>`,
    `<rect width="${left + right}" height="${HEIGHT}" rx="4" fill="#3d424c"/>`,
    `<path d="M${left} 0h${right - 4}a4 4 0 0 1 4 4v${HEIGHT - 8}a4 4 0 0 1-4 4h-${right - 4}z" fill="${colour}"/>`,
    `<g fill="#ffffff" font-family="Verdana, DejaVu Sans, sans-serif" font-size="11">${text(label, left / 2)}${text(value, left + right / 2)}</g>`,
    '</svg>',
    '',
  ].join('\n');
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
