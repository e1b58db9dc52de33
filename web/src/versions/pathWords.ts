import { isElementList, isRecord, type Json, type JsonElement } from '@caderno/core/versions';

/** Lists whose elements a person calls otherwise than by the name of the list without its s. */
const ELEMENT_WORD: Readonly<Record<string, string>> = { entries: 'entry', covers: 'link', leftOut: 'item left out', classes: 'other kind', dependsOn: 'case it depends on', attachments: 'file', fields: 'field', runs: 'row that runs' };
const FIELD_WORD: Readonly<Record<string, string>> = { expected: 'expected result', '(order)': 'order' };

/** A place in a content as a person calls it: `steps/s3/expected` is “Step 2, expected result”. `contents`: where the place is looked for. */
export function pathWords(path: string, contents: readonly (Json | undefined)[]): string {
  const words: string[] = [];
  let here = contents;
  for (const part of path.split('/')) {
    const lists = here.filter(isElementList).filter((list) => list.length > 0);
    const found = lists.find((list) => list.some((e) => e.id === part));
    const element = found?.find((e) => e.id === part);
    if (lists.length > 0 && part !== '(order)') {
      const list = words.pop() ?? '';
      words.push(elementWords(list, element, found?.findIndex((e) => e.id === part) ?? -1));
      // A cell is called by its column, a line of a feature is all text.
    } else if (words.at(-1) === 'cells') {
      const column = contents.flatMap((c) => (isRecord(c) && isElementList(c.parameters) ? c.parameters : [])).find((p) => p.id === part);
      words.splice(-1, 1, typeof column?.name === 'string' ? `<${column.name}>` : part);
    } else if (part !== 'text' || words.at(-1)?.startsWith('line ') !== true) words.push(part);
    here = here.map((value) => (isElementList(value) ? value.find((e) => e.id === part) : isRecord(value) ? value[part] : undefined));
  }
  const text = words.map((word) => FIELD_WORD[word] ?? spaced(word)).join(', ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** `step 2`, `row “usual”`, `parameter <reading>`. */
function elementWords(list: string, element: JsonElement | undefined, at: number): string {
  const word = ELEMENT_WORD[list] ?? spaced(list.replace(/s$/, ''));
  const name = typeof element?.name === 'string' && element.name !== '' ? element.name : null;
  if (at < 0) return `${word} that was removed`;
  const heading = list === 'parts' ? headingOf(element) : null;
  if (heading !== null) return `“${heading}”`;
  return name === null ? `${word} ${at + 1}` : list === 'parameters' ? `${word} <${name}>` : `${word} “${name}”`;
}

/** What a part of a feature says first of itself: its keyword and name. */
function headingOf(part: JsonElement | undefined): string | null {
  const texts = isElementList(part?.lines) ? part.lines.map((line) => (typeof line.text === 'string' ? line.text.trim() : '')) : [];
  return texts.find((text) => /^[^@#|"][^:]*:/.test(text)) ?? null;
}

function spaced(name: string): string {
  return name.includes(' ') || name.startsWith('“') ? name : name.replaceAll(/([A-Z])/g, ' $1').toLowerCase();
}
