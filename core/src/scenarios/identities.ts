import { diffArrays } from 'diff';
import { fileNameOf, lineId, partId, textOf, type FeatureContent, type FeatureLine, type FeaturePart } from './feature.ts';
import { readFeature, type ReadFeature } from './reading.ts';
import { partSpans, type PartSpan } from './splitting.ts';

/** Makes ids that nobody else makes: random ones, as two may write in one feature at the same time. */
export type NewId = () => string;

/** A part of the new text before it is known which part it was. */
interface NewPart extends PartSpan {
  readonly texts: readonly string[];
}

/**
 * The feature with another text. Each part of the text is the part it was: the one that is the same word for word,
 * else the one of the same name, else the one most like it; so that a scenario that is moved, renamed or changed stays
 * who it is. Lines of a part stay who they are in the same way. `remembered` are parts that were there a while ago, as
 * before somebody began a doc string that swallowed them.
 */
export function withText(content: FeatureContent, text: string, newId: NewId, remembered: readonly FeaturePart[] = []): FeatureContent {
  const read = readFeature(text);
  const raw = keepingEndings(content, text.split('\n'));
  const fresh = partSpans(read).map((span): NewPart => ({ ...span, texts: raw.slice(span.from, span.to) }));
  const here = new Set(content.parts.map((p) => p.id));
  const was = matchParts(fresh, content.parts, remembered.filter((r) => !here.has(r.id)));
  const parts = fresh.map((part, i) => settledPart(part, was[i] ?? null, newId));
  const same = parts.length === content.parts.length && parts.every((part, i) => part === content.parts[i]);
  return { ...content, parts: same ? content.parts : parts, title: titleOf(read, content.path) };
}

/** Letters of a title. */
const MOST_TITLE = 300;

/** What the feature calls itself; the name of its file where it does not. */
export function titleOf(read: ReadFeature, path: string): string {
  const name = read.lines.find((l) => l.role === 'feature')?.text.trim() ?? '';
  return (name === '' ? fileNameOf(path) : name).slice(0, MOST_TITLE).toWellFormed();
}

/** The feature called otherwise, in its text; one whose text does not name it is called by its file. */
export function withName(content: FeatureContent, name: string): FeatureContent {
  const { lines } = readFeature(textOf(content));
  const at = lines.findIndex((l) => l.role === 'feature');
  if (at < 0) return content;
  let before = 0;
  const parts = content.parts.map((part) => {
    const line = part.lines[at - before];
    before += part.lines.length;
    if (line === undefined) return part;
    const text = line.text.replace(/^(\uFEFF?\s*[^:]+:)[^\r]*/u, (_, keyword: string) => (name.trim() === '' ? keyword : `${keyword} ${name.trim()}`));
    return text === line.text ? part : { ...part, lines: part.lines.map((l) => (l === line ? { ...l, text } : l)) };
  });
  return parts.every((part, i) => part === content.parts[i]) ? content : { ...content, parts, title: titleOf(readFeature(textOf({ parts })), content.path) };
}

/** Scenarios that are new get the next numbers; those that were there keep theirs, whatever is said of them. Two of the same number, which undone and merged versions may have, are told apart. */
export function withNumbers(content: FeatureContent, before: FeatureContent | null): FeatureContent {
  const known = new Map(before?.parts.map((part) => [part.id, part.number]));
  let last = Math.max(content.lastNumber, before?.lastNumber ?? 0, ...content.parts.map((p) => p.number));
  const taken = new Set<number>();
  const numbers = content.parts.map((part) => {
    const asked = known.get(part.id) || part.number;
    if (part.kind !== 'scenario') return 0;
    const number = asked === 0 || taken.has(asked) ? (last += 1) : asked;
    taken.add(number);
    return number;
  });
  return { ...content, lastNumber: last, parts: content.parts.map((part, i) => (part.number === numbers[i] ? part : { ...part, number: numbers[i] ?? 0 })) };
}

/** Editors do not show how a line ends. Where the file ends its lines with carriage returns, what comes from one without gets them back. */
function keepingEndings(content: FeatureContent, texts: readonly string[]): readonly string[] {
  const before = content.parts.flatMap((p) => p.lines);
  const first = before[0]?.text.startsWith('\uFEFF') === true && texts[0]?.startsWith('\uFEFF') !== true ? '\uFEFF' : '';
  const marked = first === '' ? texts : texts.map((text, i) => (i === 0 ? `${first}${text}` : text));
  const returns = before.filter((l) => l.text.endsWith('\r')).length;
  if (returns === 0 || marked.some((text) => text.endsWith('\r'))) return marked;
  const mixed = returns < before.length - 1;
  const usual = returns * 2 >= before.length;
  const kept = mixed ? pairs(before.map((l) => l.text.replace(/\r$/, '')), marked) : [];
  return marked.map((text, i) => {
    const old = kept[i];
    const ends = old === undefined || old === null ? usual && i < marked.length - 1 : before[old]?.text.endsWith('\r') === true;
    return ends ? `${text}\r` : text;
  });
}

function matchParts(fresh: readonly NewPart[], now: readonly FeaturePart[], remembered: readonly FeaturePart[]): (FeaturePart | null)[] {
  const free = new Set([...now, ...remembered]);
  const was = new Array<FeaturePart | null>(fresh.length).fill(null);
  const take = (i: number, part: FeaturePart | undefined): void => {
    if (part === undefined) return;
    was[i] = part;
    free.delete(part);
  };
  // Whoever types changes one part: those before and behind it are who they were.
  let begin = 0;
  while (begin < fresh.length && isWord(fresh[begin], now[begin])) {
    take(begin, now[begin]);
    begin += 1;
  }
  for (let i = fresh.length - 1, j = now.length - 1; i >= begin && j >= begin && isWord(fresh[i], now[j]); i -= 1, j -= 1) take(i, now[j]);
  const by = (keyOfNew: (part: NewPart) => string, keyOfOld: (part: FeaturePart) => string): void => {
    const waiting = new Map<string, FeaturePart[]>();
    for (const part of free) {
      const key = keyOfOld(part);
      waiting.set(key, [...(waiting.get(key) ?? []), part]);
    }
    fresh.forEach((part, i) => {
      if (was[i] === null) take(i, waiting.get(keyOfNew(part))?.shift());
    });
  };
  by((p) => `${p.kind}\n${p.texts.join('\n')}`, (p) => `${p.kind}\n${p.lines.map((l) => l.text).join('\n')}`);
  by((p) => `${p.kind}\n${nameIn(p.texts)}`, (p) => `${p.kind}\n${nameIn(p.lines.map((l) => l.text))}`);
  for (const [i, part] of fresh.entries()) if (was[i] === null) take(i, mostAlike(part, [...free]));
  return was;
}

/** Whether a part of the new text is an old one word for word. */
function isWord(part: NewPart | undefined, old: FeaturePart | undefined): boolean {
  return part !== undefined && part.kind === old?.kind && part.texts.length === old.lines.length && part.texts.every((text, i) => text === old.lines[i]?.text);
}

/** What stands behind the keyword of a part: it is on the first line that is neither empty nor of tags or a comment. */
function nameIn(texts: readonly string[]): string {
  const keyword = texts.find((text) => !/^\uFEFF?\s*(?:[@#]|$)/u.test(text)) ?? '';
  return keyword.slice(keyword.indexOf(':') + 1).trim();
}

/** With less in common a part is another one. */
const LEAST_ALIKE = 0.5;

/** The part of the kind that has most lines in common with it (Dice), the first of several; of a head the head, whatever it says. */
function mostAlike(part: NewPart, free: readonly FeaturePart[]): FeaturePart | undefined {
  const same = free.filter((p) => p.kind === part.kind);
  if (part.kind === 'head') return same[0];
  const words = new Set(meaningful(part.texts));
  let best: { part: FeaturePart; alike: number } | null = null;
  for (const old of same) {
    const lines = new Set(meaningful(old.lines.map((l) => l.text)));
    const alike = (2 * [...lines].filter((l) => words.has(l)).length) / (words.size + lines.size || 1);
    if (alike >= LEAST_ALIKE && alike > (best?.alike ?? 0)) best = { part: old, alike };
  }
  return best?.part;
}

function meaningful(texts: readonly string[]): string[] {
  return texts.map((t) => t.trim()).filter((t) => t !== '');
}

function settledPart({ kind, texts }: NewPart, was: FeaturePart | null, newId: NewId): FeaturePart {
  if (was === null) return { id: partId(newId()), kind, number: 0, lines: texts.map((text) => newLine(text, newId)), covers: [] };
  const before = was.lines.map((l) => l.text);
  if (before.length === texts.length && before.every((text, i) => text === texts[i])) return was;
  const kept = pairs(before, texts);
  const lines = texts.map((text, i) => {
    const at = kept[i];
    const line = at === undefined || at === null ? undefined : was.lines[at];
    return line === undefined ? newLine(text, newId) : line.text === text ? line : { ...line, text };
  });
  return { ...was, lines };
}

function newLine(text: string, newId: NewId): FeatureLine {
  return { id: lineId(newId()), text };
}

/** Longer runs of other lines are paired by their order: comparing them would take too long while somebody types. */
const MOST_EDITS = 400;

/** For each line of the new text the line it was: the same one, or, where lines were replaced, the one in its place. */
function pairs(before: readonly string[], after: readonly string[]): (number | null)[] {
  let start = 0;
  while (start < before.length && start < after.length && before[start] === after[start]) start += 1;
  let end = 0;
  while (end < before.length - start && end < after.length - start && before[before.length - 1 - end] === after[after.length - 1 - end]) end += 1;
  const middle = pairsOfRun(before.slice(start, before.length - end), after.slice(start, after.length - end));
  return after.map((_, i) => {
    if (i < start) return i;
    if (i >= after.length - end) return before.length - (after.length - i);
    const at = middle[i - start];
    return at === undefined || at === null ? null : at + start;
  });
}

function pairsOfRun(before: readonly string[], after: readonly string[]): (number | null)[] {
  const changes = diffArrays([...before], [...after], { maxEditLength: MOST_EDITS }) ?? [{ value: [...before], removed: true, added: false, count: before.length }, { value: [...after], removed: false, added: true, count: after.length }];
  const found: (number | null)[] = [];
  let at = 0;
  let replaced: number[] = [];
  for (const change of changes) {
    const length = change.value.length;
    if (change.removed) {
      replaced = Array.from({ length }, (_, i) => at + i);
      at += length;
    } else if (change.added) {
      found.push(...Array.from({ length }, (_, i) => replaced[i] ?? null));
      replaced = [];
    } else {
      found.push(...Array.from({ length }, (_, i) => at + i));
      at += length;
      replaced = [];
    }
  }
  return found;
}
