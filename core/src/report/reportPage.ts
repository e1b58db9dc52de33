import type { Element, ElementContent, Properties } from 'hast';
import { toHtml } from 'hast-util-to-html';
import { itemsToShow, type Standing, type StandingCounts } from '../coverage/index.ts';
import { curveLine } from './curveLine.ts';
import { REPORT_LOOK } from './reportLook.ts';
import type { ReportCell, ReportCurve, ReportDocument, ReportSection, ReportTable, ReportWords } from './reportDocument.ts';
import { moreRows } from './reportRows.ts';

/** A report as one HTML file that asks nothing of any network and runs nothing. All that people wrote is text in it. */
export function reportPage({ title, of, note, figures, sections }: ReportDocument, words: Pick<ReportWords, 'day' | 'standing'>): string {
  const body = [
    element('header', {}, element('h1', {}, title), element('p', { className: ['small'] }, of), ...(note === '' ? [] : [element('p', { className: ['note'] }, note)])),
    element('ul', { className: ['figures'] }, ...figures.map(({ value, words: what }) => element('li', {}, element('b', {}, value), ' ', what))),
    ...sections.map((section) => sectionOf(section, words)),
  ];
  const head = [
    element('meta', { charSet: 'utf-8' }),
    element('meta', { name: 'viewport', content: 'width=device-width' }),
    element('meta', { httpEquiv: ['Content-Security-Policy'], content: `default-src 'none'; style-src 'unsafe-inline'` }),
    element('title', {}, title),
    element('style', {}, REPORT_LOOK),
  ];
  return `${toHtml({ type: 'root', children: [{ type: 'doctype' }, element('html', { lang: 'en' }, element('head', {}, ...head), element('body', {}, element('main', {}, ...body)))] })}\n`;
}

function element(tagName: string, properties: Properties, ...children: readonly (ElementContent | string)[]): Element {
  return { type: 'element', tagName, properties, children: children.map((child) => (typeof child === 'string' ? { type: 'text', value: child } : child)) };
}

function sectionOf({ title, lines, tables, curve }: ReportSection, { day, standing }: Pick<ReportWords, 'day' | 'standing'>): Element {
  return element('section', {}, element('h2', {}, title), ...lines.map((line) => element('p', {}, line)), ...(curve === null ? [] : [figureOf(curve, day)]), ...(tables.some(hasBars) ? [legend(standing)] : []), ...tables.flatMap(tableOf));
}

/** Whether rows of a table have a bar: all of them do then, and such tables stand below each other as one. */
export function hasBars({ rows }: ReportTable): boolean {
  return rows[0]?.some((cell) => cell.kind === 'bar') ?? false;
}

/** What the parts of a bar say. */
function legend(standing: ReportWords['standing']): Element {
  return element('p', { className: ['small', 'legend'] }, ...BAR_ORDER.map((s) => element('span', {}, element('i', { className: [s] }), ` ${standing[s]}`)));
}

function tableOf(table: ReportTable): Element[] {
  const more = moreRows(table);
  const side = (column: number): Properties => (table.rows[0]?.[column]?.kind === 'number' ? { className: ['number'] } : {});
  return [
    element(
      'table',
      hasBars(table) ? { className: ['bars'] } : {},
      element('thead', {}, element('tr', {}, ...table.columns.map((name, column) => element('th', { scope: 'col', ...side(column) }, name)))),
      element('tbody', {}, ...table.rows.slice(0, table.most).map((row) => element('tr', {}, ...row.map(cellOf)))),
    ),
    ...(more === null ? [] : [element('p', { className: ['small'] }, more)]),
  ];
}

function cellOf(cell: ReportCell): Element {
  switch (cell.kind) {
    case 'text':
      return element('td', {}, cell.text);
    case 'number':
      return element('td', { className: ['number'] }, cell.text);
    case 'bar':
      return element('td', {}, barOf(cell.counts));
  }
}

/** How items stand, from left to right as in every bar. */
export const BAR_ORDER = ['shown', 'linked', 'waiting', 'suspect', 'gap'] as const satisfies readonly Standing[];

function barOf(counts: StandingCounts): Element {
  const all = itemsToShow(counts);
  return element('span', { className: ['strip'], ariaHidden: 'true' }, ...BAR_ORDER.filter((s) => counts[s] > 0).map((s) => element('i', { className: [s], style: `width:${((counts[s] * 100) / all).toFixed(2)}%` })));
}

const [WIDTH, HEIGHT, LEFT, TOP, BELOW] = [600, 130, 40, 16, 20];

function figureOf(curve: ReportCurve, day: (iso: string) => string): Element {
  const { runs, mark } = curveLine(curve, WIDTH, HEIGHT);
  const [first, last] = [curve.points[0]?.at, curve.points.at(-1)?.at];
  const text = (words: string, x: number, y: number, anchor: string): Element => element('text', { ...numbers({ x, y }), textAnchor: anchor }, words);
  const level = (percent: number): Element[] => {
    const y = HEIGHT - (percent / 100) * HEIGHT;
    return [element('line', { className: ['rule'], ...numbers({ x1: 0, x2: WIDTH, y1: y, y2: y }) }), text(`${percent} %`, -6, y + 4, 'end')];
  };
  return element(
    'svg',
    { viewBox: `${-LEFT} ${-TOP} ${WIDTH + LEFT + 10} ${HEIGHT + TOP + BELOW}`, role: 'img', ariaLabel: curve.words },
    ...[0, 50, 100].flatMap(level),
    ...(mark === null ? [] : [element('line', { className: ['mark'], ...numbers({ x1: mark.x, x2: mark.x, y1: 0, y2: HEIGHT }) }), text(mark.name, mark.x, -4, 'middle')]),
    ...runs.map((points) => element('polyline', { points })),
    ...(first === undefined || last === undefined ? [] : [text(day(first), 0, HEIGHT + 15, 'start'), text(day(last), WIDTH, HEIGHT + 15, 'end')]),
  );
}

function numbers(attributes: Readonly<Record<string, number>>): Properties {
  return Object.fromEntries(Object.entries(attributes).map(([name, value]) => [name, String(value)]));
}
