import type { ArtefactId } from '../artefacts/index.ts';
import type { Frozen } from './baseline.ts';
import { changedItem, type FrozenChange } from './compare.ts';

/** An agreed case that changes reach through what it uses, without that it was changed itself. */
export interface Reached {
  readonly id: ArtefactId;
  readonly title: string;
  readonly through: readonly ArtefactId[];
}

/** A figure before and after, in words. */
export type ComparedFigure = readonly [name: string, before: string, after: string];

/** What a file of a comparison tells. */
export interface Comparison {
  readonly title: string;
  /** How the two moments are called: `B-1 Before the pilot`, `now`. */
  readonly before: string;
  readonly after: string;
  readonly figures: readonly ComparedFigure[];
  readonly changes: readonly FrozenChange[];
  /** What of the settings is otherwise, in words; empty: nothing. */
  readonly settings: string;
  readonly reached: readonly Reached[];
  /** Changes beyond those that are told. */
  readonly more: number;
}

const WHAT: Record<FrozenChange['kind'], string> = { added: 'added', changed: 'changed', state: 'stands otherwise', gone: 'withdrawn or gone' };

/** The sheets of a workbook of it: what changed, the figures, the agreed cases it reaches. */
export function comparisonSheets({ before, after, figures, changes, settings, reached, more }: Comparison): { readonly name: string; readonly rows: readonly (readonly string[])[] }[] {
  const rows = changes.map((change) => {
    const { id, title, module } = changedItem(change);
    const [from, to] = sides(change);
    return [WHAT[change.kind], id, title, module, versionOf(from), versionOf(to), from?.state ?? '', to?.state ?? '', change.kind === 'changed' ? (change.meant ? 'yes' : 'no') : ''];
  });
  return [
    { name: 'Changes', rows: [['what', 'id', 'title', 'module', `version in ${before}`, `version in ${after}`, 'state before', 'state after', 'means something else'], ...rows, ...(settings === '' ? [] : [['changed', '', `Of the settings: ${settings}`]]), ...(more === 0 ? [] : [[moreWords(more)]])] },
    { name: 'Figures', rows: [['figure', before, after], ...figures.map((f) => [...f])] },
    ...(reached.length === 0 ? [] : [{ name: 'Agreed cases reached', rows: [['id', 'title', 'through'], ...reached.map((r) => [r.id, r.title, r.through.join(', ')])] }]),
  ];
}

/** The same as Markdown, by module. */
export function comparisonMarkdown({ title, before, after, figures, changes, settings, reached, more }: Comparison): string {
  const modules = [...new Set(changes.map((c) => changedItem(c).module))].sort();
  const lines = [
    `# ${plain(title)}`,
    '',
    `${plain(before)} → ${plain(after)}`,
    ...(figures.length === 0 ? [] : ['', `| | ${plain(before)} | ${plain(after)} |`, '|---|---:|---:|', ...figures.map((f) => `| ${f.map(plain).join(' | ')} |`)]),
    ...modules.flatMap((module) => ['', `## ${module === '' ? 'Without a module' : plain(module)}`, '', ...changes.filter((c) => changedItem(c).module === module).map(changeLine)]),
    ...(settings === '' ? [] : ['', `Of the settings: ${plain(settings)}`]),
    ...(changes.length === 0 ? ['', settings === '' ? 'Nothing changed.' : 'No artefact changed.'] : []),
    ...(more === 0 ? [] : ['', moreWords(more)]),
    ...(reached.length === 0 ? [] : ['', '## Agreed cases that the changes reach', '', ...reached.map((r) => `- ${r.id} ${plain(r.title)}, through ${r.through.join(', ')}`)]),
  ];
  return `${lines.join('\n')}\n`;
}

function moreWords(more: number): string {
  return `and ${more} more, which are not told here`;
}

function changeLine(change: FrozenChange): string {
  const { id, title } = changedItem(change);
  const [from, to] = sides(change);
  const versions = [versionOf(from), versionOf(to)].filter(Boolean).join(' → ');
  const more = change.kind === 'changed' && !change.meant ? ', means the same' : change.kind === 'state' ? `, ${from?.state ?? ''} → ${to?.state ?? ''}` : '';
  return `- **${WHAT[change.kind]}** ${id} ${plain(title)} (${versions}${more})`;
}

function sides(change: FrozenChange): [Frozen | null, Frozen | null] {
  return [change.kind === 'added' ? null : change.from, change.kind === 'gone' ? null : change.to];
}

const versionOf = (item: Frozen | null): string => (item === null ? '' : `v${item.version}`);

/** A text of one line in which nothing is read as Markdown. */
function plain(text: string): string {
  return text.replaceAll(/\s+/g, ' ').replaceAll(/[\\`*_{}[\]<>#|~]/g, String.raw`\$&`);
}
