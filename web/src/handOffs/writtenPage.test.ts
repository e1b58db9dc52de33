/** @jest-environment ./web/test/browserEnvironment.mjs */
import { beforeEach, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { attachmentId, type Attachment } from '@caderno/core/attachments';
import { handOffNumber, handOffPage, type ExecutedInstance, type HandOffHead } from '@caderno/core/handOffs';

const HEAD: HandOffHead = { project: { key: 'fc', name: 'Fonte Clara' }, number: handOffNumber(2), name: 'Round 6', note: 'Begin early', due: '2031-05-01', by: 'Inês V.', at: '2031-04-24T08:00:00.000Z', baseline: 'B-3', person: null };
const file = (name: string, type: Attachment['type']): Attachment => ({ id: attachmentId(name.padEnd(64, '0')), name, type, size: 10 });
const step = (number: number, more: Partial<ExecutedInstance['steps'][number]> = {}): ExecutedInstance['steps'][number] => ({ number, through: '', action: `do ${number}`, expected: '', files: [], ...more });
const instance = (key: string, more: Partial<ExecutedInstance> = {}): ExecutedInstance => ({
  key, of: 'C-1', version: 1, title: `Title of ${key}`, module: '', priority: 'high', tags: [], execution: 'byHand', name: '', configuration: '', person: '', minutes: null, before: [], values: [], steps: [step(1), step(2, { expected: 'it is done' })], files: [], ...more,
});
const textOf = (instances: readonly ExecutedInstance[], head = HEAD): string => [...handOffPage(head, instances, (f) => (f.type === 'image/png' ? `data:image/png;base64,${f.name}` : null))].join('');
const parsed = (text: string): Document => new DOMParser().parseFromString(text, 'text/html');
const words = (element: Element | null): string => (element?.textContent ?? '').replaceAll(/\s+/g, ' ').trim();

describe('what the page says', () => {
  test('stands in it once: facts, what is to be known before, steps with where they come from and what is expected, files', () => {
    const page = parsed(textOf([
      instance('C-1·low', { configuration: 'Web', person: 'Rui M.', minutes: 5, before: [{ word: 'Objective', text: 'to see it' }], files: [file('rules.csv', 'text/plain')], steps: [step(1, { through: 'S-1 Sign in' }), step(2, { through: 'S-1 Sign in', action: '', expected: 'it is there' }), step(3, { files: [file('dial.png', 'image/png')] })] }),
      instance('C-1·high'),
    ]));
    const [first, second] = page.querySelectorAll('article');
    expect([page.title, words(page.querySelector('header h1')), words(page.querySelector('header'))]).toEqual(['Fonte Clara · H-2 Round 6', 'Fonte Clara · H-2 Round 6', expect.stringContaining('Handed off by Inês V. on 2031-04-24, with the versions of B-3; to be done by 2031-05-01')]);
    expect([first?.querySelector('h2'), ...(first?.querySelectorAll(':scope > p.small, :scope > p.text') ?? [])].map((e) => words(e ?? null))).toEqual(['Title of C-1·low C-1·low', 'in Web, for Rui M., 5 minutes', 'Objective: to see it', 'File: rules.csv']);
    expect([...(first?.querySelectorAll('li') ?? [])].map((li) => [...li.querySelectorAll('p, .text')].map(words))).toEqual([['S-1 Sign in', 'do 1'], ['Expected', '⇒ it is there'], ['do 3']]);
    expect(first?.querySelector('img')?.getAttribute('src')).toBe('data:image/png;base64,dial.png');
    expect([second?.getAttribute('data-key'), second?.querySelectorAll('img, p.small').length]).toEqual(['C-1·high', 0]);
    expect([parsed(textOf([], { ...HEAD, person: 'Olga S.' })).title, parsed(textOf([], { ...HEAD, person: '' })).title]).toEqual(['Fonte Clara · H-2 Round 6 · the part of Olga S.', 'Fonte Clara · H-2 Round 6 · the part of nobody']);
  });

  test('is never markup, whatever people wrote; and nothing in it leads to a network', () => {
    const hostile = fc.oneof(fc.constantFrom('<script>alert(1)</script>', '</script>', '</style><img src=x onerror=a>', '"><b>', '<!--', ']]>', '&lt;', "' onclick='a"), fc.string({ maxLength: 12 })).map((text) => text.replaceAll('\0', ''));
    const usual = parsed(textOf([instance('k', { before: [{ word: 'Objective', text: 'a' }], steps: [step(1, { through: 'S-1 a', expected: 'a' })] })], { ...HEAD, note: 'a' }));
    const shape = (page: Document): string[] => [...page.querySelectorAll('*')].map((e) => `${e.tagName} ${e.getAttributeNames().join(' ')}`);
    fc.assert(
      fc.property(hostile, hostile, hostile, (a, b, c) => {
        fc.pre([a, b, c].every((text) => text.trim() !== ''));
        const page = parsed(textOf([instance(b, { title: a, before: [{ word: 'Objective', text: c }], steps: [step(1, { through: a, action: b, expected: c })] })], { ...HEAD, name: b, note: a, project: { key: c, name: a } }));
        expect(shape(page)).toEqual(shape(usual));
        expect([page.querySelector('article')?.getAttribute('data-key'), page.querySelector('li label .text')?.textContent, page.querySelector('li .expected')?.textContent].map((t) => t?.replaceAll(/\r\n?/g, '\n'))).toEqual([b, b, `⇒ ${c}`].map((t) => t.replaceAll(/\r\n?/g, '\n')));
      }),
    );
    expect(usual.querySelector('meta[http-equiv]')?.getAttribute('content')).toMatch(/^default-src 'none'; img-src data:;/);
    expect([...usual.querySelectorAll('[src], [href]')]).toEqual([]);
  });
});

describe('ticking and remarking in it', () => {
  let saved: Blob[] = [];
  let page = parsed('');

  beforeEach(() => {
    localStorage.clear();
    saved = [];
    URL.createObjectURL = (blob) => {
      saved.push(blob as Blob);
      return 'blob:x';
    };
    URL.revokeObjectURL = () => undefined;
  });

  /** Opens the page anew, as after it was closed. */
  function open(): void {
    page = parsed(textOf([instance('C-1·low'), instance('C-1·high')]));
    // What was parsed runs nothing by itself.
    new Function('document', page.querySelector('script')?.textContent ?? '')(page);
  }

  const boxes = (): HTMLInputElement[] => [...page.querySelectorAll<HTMLInputElement>('.done')];
  const ticked = (): boolean[] => boxes().map((box) => box.checked);
  const progress = (): string => words(page.querySelector('#progress'));
  const tick = (place: number): void => boxes()[place]?.click();
  const write = (field: HTMLInputElement | HTMLTextAreaElement | null, text: string): void => {
    if (field === null) throw new Error('There is a field to write in: expected one, got none');
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
  };
  const notes = async (): Promise<{ by: string; notes: object[] }> => {
    page.querySelector<HTMLElement>('#save')?.click();
    const text = await new Promise<string>((resolve) => {
      const reader = new FileReader();
      reader.addEventListener('load', () => resolve(String(reader.result)));
      reader.readAsText(saved.at(-1) ?? new Blob([]));
    });
    return JSON.parse(text) as never;
  };

  test('a whole that is done ticks its steps, a step that is not unticks the whole; closed and opened again it is as it was', () => {
    open();
    expect([ticked(), progress()]).toEqual([[false, false, false, false, false, false], '0 of 4 steps done']);
    tick(2);
    expect([ticked(), progress()]).toEqual([[true, true, true, false, false, false], '2 of 4 steps done']);
    tick(0);
    tick(4);
    expect([ticked(), progress()]).toEqual([[false, true, false, false, true, false], '2 of 4 steps done']);
    open();
    expect([ticked(), progress()]).toEqual([[false, true, false, false, true, false], '2 of 4 steps done']);
  });

  test('what was noted is saved with its places, and nothing of what was not', async () => {
    open();
    write(page.querySelector('#by'), 'A tester');
    page.querySelector<HTMLElement>('article:last-of-type li:nth-child(2) .remark')?.click();
    write(page.querySelector('textarea'), 'The dial is <hidden>');
    page.querySelector<HTMLElement>('article > .tools .remark')?.click();
    write(page.querySelector('article > .tools textarea'), 'slow');
    write(page.querySelector('.minutes'), '9');
    tick(0);
    tick(1);
    tick(1);
    const told = { format: 'caderno-hand-off-notes', version: 1, project: 'fc', handOff: 2, by: 'A tester' };
    const noted = [
      { instance: 'C-1·high', step: 2, done: false, remark: 'The dial is <hidden>', minutes: '' },
      { instance: 'C-1·low', step: null, done: false, remark: 'slow', minutes: '9' },
      { instance: 'C-1·low', step: 1, done: true, remark: '', minutes: '' },
    ];
    expect(await notes()).toEqual({ ...told, notes: noted });
    open();
    expect([...page.querySelectorAll('textarea')].map((field) => field.value)).toEqual(['slow', 'The dial is <hidden>']);
    expect(page.querySelector<HTMLInputElement>('#by')?.value).toBe('A tester');
    expect(await notes()).toEqual({ ...told, notes: noted });
  });

  test('what was kept and cannot be read, or cannot be kept at all, is said', () => {
    localStorage.setItem('caderno fc H-2 B-3 ', '{');
    open();
    expect([words(page.querySelector('#kept')), progress()]).toEqual(['What was noted here before cannot be read any more. Begin anew, and save it as a file.', '0 of 4 steps done']);
    const own = Storage.prototype.setItem;
    Storage.prototype.setItem = () => {
      throw new Error('no room');
    };
    try {
      open();
      tick(0);
      expect([words(page.querySelector('#kept')), progress()]).toEqual(['This browser keeps nothing for a page from a file. Save what you noted before you close it.', '1 of 4 steps done']);
    } finally {
      Storage.prototype.setItem = own;
    }
  });
});
