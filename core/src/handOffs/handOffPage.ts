import type { Element, ElementContent, Properties } from 'hast';
import { toHtml } from 'hast-util-to-html';
import type { Attachment } from '../attachments/index.ts';
import type { ExecutedInstance, ExecutedStep } from './executed.ts';
import { headLines, type HandOffHead } from './handOffFile.ts';
import { PAGE_LOOK } from './pageLook.ts';
import { PAGE_SCRIPT } from './pageScript.ts';

/** Steps that one page holds: a browser shows no more of them at once without faltering. */
export const MOST_ON_A_PAGE = 20_000;

/** A picture as an address that holds its bytes (`data:`); null: it is named only. */
export type PictureOf = (file: Attachment) => string | null;

/**
 * A hand-off as one HTML file, piece by piece: it asks nothing of any network, steps are ticked and remarked in it, and what was noted is saved as a
 * file of its own. All that people wrote is text in it, never markup.
 */
export function* handOffPage(head: HandOffHead, instances: Iterable<ExecutedInstance>, pictureOf: PictureOf): Generator<string> {
  const [title = '', facts = ''] = headLines(head);
  const policy = `default-src 'none'; img-src data:; style-src 'unsafe-inline'; script-src 'unsafe-inline'`;
  yield `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<meta name="viewport" content="width=device-width">\n<meta http-equiv="Content-Security-Policy" content="${policy}">\n`;
  yield `${html(element('title', {}, title))}\n<style>\n${PAGE_LOOK}</style>\n</head>\n`;
  // An element is closed by hand, as what stands in it comes piece by piece.
  yield `${html(element('body', { dataProject: head.project.key, dataHandOff: String(head.number), dataBaseline: head.baseline, dataPerson: head.person ?? '' })).replace('</body>', '')}\n`;
  yield `${html(headOf(title, facts, head.note))}\n<main>\n`;
  for (const instance of instances) yield `${html(articleOf(instance, pictureOf))}\n`;
  yield `</main>\n<script>\n${PAGE_SCRIPT}</script>\n</body>\n</html>\n`;
}

function html(node: Element): string {
  return toHtml(node);
}

function element(tagName: string, properties: Properties, ...children: readonly (ElementContent | string)[]): Element {
  return { type: 'element', tagName, properties, children: children.map((child) => (typeof child === 'string' ? { type: 'text', value: child } : child)) };
}

function headOf(title: string, facts: string, note: string): Element {
  return element(
    'header',
    {},
    element('h1', {}, title),
    element('p', {}, facts),
    ...(note === '' ? [] : [element('p', { className: ['text'] }, note)]),
    element(
      'p',
      { className: ['tools'] },
      element('label', {}, 'Your name ', element('input', { id: 'by', autoComplete: ['name'] })),
      element('button', { type: 'button', id: 'save' }, 'Save what I noted'),
      element('span', { id: 'progress', role: 'status' }),
    ),
    element('p', { id: 'kept', className: ['small'] }, 'What you tick and remark stays in this browser. Save it as a file and send that back.'),
  );
}

function articleOf(instance: ExecutedInstance, pictureOf: PictureOf): Element {
  const { key, title, configuration, person, minutes, before, steps, files } = instance;
  const facts = [...(configuration === '' ? [] : [`in ${configuration}`]), ...(person === '' ? [] : [`for ${person}`]), ...(minutes === null ? [] : [`${minutes} minutes`])];
  return element(
    'article',
    { dataKey: key },
    element('h2', {}, title, ' ', element('code', {}, key)),
    ...(facts.length === 0 ? [] : [element('p', { className: ['small'] }, facts.join(', '))]),
    ...before.map(({ word, text }) => element('p', { className: ['text'] }, element('b', {}, `${word}: `), text)),
    ...filesOf(files, pictureOf),
    element('ol', {}, ...steps.map((step, i) => stepOf(step, steps[i - 1]?.through ?? '', pictureOf))),
    element(
      'p',
      { className: ['tools'] },
      element('label', {}, element('input', { type: 'checkbox', className: ['done'] }), ' all done'),
      element('label', {}, 'minutes needed ', element('input', { className: ['minutes'], inputMode: 'decimal', size: 5 })),
      element('button', { type: 'button', className: ['remark'] }, 'Remark'),
    ),
  );
}

function stepOf({ number, through, action, expected, files }: ExecutedStep, before: string, pictureOf: PictureOf): Element {
  const said = action === '' ? 'Expected' : action;
  return element(
    'li',
    { dataStep: String(number) },
    ...(through === before || through === '' ? [] : [element('p', { className: ['small'] }, through)]),
    element('label', {}, element('input', { type: 'checkbox', className: ['done'] }), ' ', element('span', { className: ['text'] }, said)),
    ...(expected === '' ? [] : [element('p', { className: ['text', 'expected'] }, `⇒ ${expected}`)]),
    ...filesOf(files, pictureOf),
    element('button', { type: 'button', className: ['remark'] }, 'Remark'),
  );
}

function filesOf(files: readonly Attachment[], pictureOf: PictureOf): Element[] {
  return files.map((file) => {
    const picture = pictureOf(file);
    return picture === null ? element('p', { className: ['small'] }, `File: ${file.name}`) : element('img', { src: picture, alt: file.name });
  });
}
