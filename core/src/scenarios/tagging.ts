import { lineId, type FeatureContent, type FeatureLine } from './feature.ts';
import { readFeature } from './reading.ts';

const TAG = /@[^\s@]+/gu;

/** A tag as Gherkin writes it; null: nothing that has spaces or a comment's sign in it is one. */
function asTag(text: string): string | null {
  const tag = `@${text.trim().replace(/^@/, '')}`;
  return /^@[^\s@#]+$/u.test(tag) ? tag : null;
}

function same(a: string, b: string): boolean {
  return a.toLowerCase() === b.toLowerCase();
}

/** The feature with a tag above its name, which holds for all its scenarios; or without it wherever it stands. Null: it can be no tag. */
export function withFeatureTag(content: FeatureContent, tag: string, belongs: boolean): FeatureContent | null {
  const wanted = asTag(tag);
  if (wanted === null) return null;
  return belongs ? tagged(content, wanted) : retagged(content, (found) => (same(found, wanted) ? null : found));
}

/** The feature with tags called otherwise wherever they stand; null takes them away. */
export function withFeatureTagsRenamed(content: FeatureContent, from: readonly string[], to: string | null): FeatureContent | null {
  const [olds, renamed] = [from.flatMap((t) => asTag(t) ?? []), to === null ? null : asTag(to)];
  if (to !== null && renamed === null) return null;
  return retagged(content, (found) => (olds.some((old) => same(found, old)) ? renamed : found));
}

function tagged(content: FeatureContent, tag: string): FeatureContent {
  const all = content.parts.flatMap((part) => part.lines);
  const { lines } = readFeature(all.map((l) => l.text).join('\n'));
  const name = lines.findIndex((l) => l.role === 'feature');
  const above = lines.findIndex((l, i) => l.role === 'tags' && i < name);
  const at = all[above < 0 ? name : above];
  if (at === undefined || (above >= 0 && lines.slice(0, name).some((l) => l.role === 'tags' && l.items.some((i) => same(i.text, tag))))) return content;
  const end = at.text.endsWith('\r') ? '\r' : '';
  const [bom = '', indent = ''] = [/^\uFEFF?/u.exec(at.text)?.[0], /^\uFEFF?(\s*)/u.exec(at.text)?.[1]];
  const behind = (line: FeatureLine): FeatureLine => ({ ...line, text: line.text.replace(/^([^#\r]*?)([^\S\r]*)(#[^\r]*)?(\r?)$/u, (_, tags: string, space: string, comment: string | undefined, cr: string) => `${tags} ${tag}${comment === undefined ? '' : `${space}${comment}`}${cr}`) });
  const before = (line: FeatureLine): FeatureLine[] => [{ id: lineId(`${line.id}.tags`.slice(-64)), text: `${bom}${indent}${tag}${end}` }, { ...line, text: line.text.slice(bom.length) }];
  return { ...content, parts: content.parts.map((part) => (part.lines.includes(at) ? { ...part, lines: part.lines.flatMap((line) => (line !== at ? [line] : above < 0 ? before(line) : [behind(line)])) } : part)) };
}

/** Each tag replaced, or left out; a line that has none left goes. */
function retagged(content: FeatureContent, replace: (tag: string) => string | null): FeatureContent {
  const { lines: read } = readFeature(content.parts.flatMap((part) => part.lines.map((l) => l.text)).join('\n'));
  let at = 0;
  const parts = content.parts.map((part) => {
    const lines = part.lines.flatMap((line) => {
      const isTags = read[at]?.role === 'tags';
      at += 1;
      const made = isTags ? withTags(line.text, replace) : line.text;
      return made === line.text ? [line] : made.trim() === '' ? [] : [{ ...line, text: made }];
    });
    return lines.length === part.lines.length && lines.every((line, i) => line === part.lines[i]) ? part : { ...part, lines };
  });
  return parts.every((part, i) => part === content.parts[i]) ? content : { ...content, parts };
}

/** A line of tags with each replaced, null takes it away; what stands behind them stays. */
export function withTags(text: string, replace: (tag: string) => string | null): string {
  const comment = text.search(/\s#/u);
  const [tags, rest] = comment < 0 ? [text, ''] : [text.slice(0, comment), text.slice(comment)];
  const seen: string[] = [];
  return (
    tags.replaceAll(/@[^\s@]+[^\S\r\n]*/gu, (found) => {
      const made = replace(found.trim());
      if (made === null || seen.some((s) => same(s, made))) return '';
      seen.push(made);
      return found.replace(TAG, () => made);
    }) + rest
  );
}
