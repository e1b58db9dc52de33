import type { FeatureId } from '../artefacts/index.ts';
import { asJson, mergeContent, type Conflict, type Side } from '../versions/index.ts';
import { EMPTY_FEATURE, textOf, type FeatureContent } from './feature.ts';
import { titleOf, withText, type NewId } from './identities.ts';
import { readFeature } from './reading.ts';

/** A file of a folder of features. */
export interface FeatureFile {
  readonly path: string;
  readonly text: string;
}

/** A feature that stands here. */
export interface FeatureHere {
  readonly id: FeatureId;
  readonly content: FeatureContent;
  /** The text of the file as it came in last; null: it never came from one. */
  readonly brought: string | null;
}

/** What a file does. */
export type PlannedFeature =
  | { readonly kind: 'added'; readonly file: FeatureFile; readonly content: FeatureContent }
  /** `conflicts`: where it was changed both here and in the file; without a choice what is here stays there. */
  | { readonly kind: 'changed'; readonly file: FeatureFile; readonly id: FeatureId; readonly before: FeatureContent; readonly content: FeatureContent; readonly conflicts: readonly Conflict[] }
  | { readonly kind: 'same'; readonly file: FeatureFile; readonly id: FeatureId };

/** What the files of a folder do. */
export interface FeaturePlan {
  readonly planned: readonly PlannedFeature[];
  /** What came from a file once and is not among these: it stays. */
  readonly missing: readonly FeatureId[];
}

/** Which side counts where a feature was changed both here and in the file. */
export type FeatureChoices = ReadonlyMap<FeatureId, Side>;

/**
 * Plans what files do: each changes the feature of its path, or the one most like it whose own file is gone, and else is
 * a new one. Three ways, from the text as it came in last: what only the file changed comes, what was changed only here
 * stays. Brought again it changes nothing.
 */
export function planFeatures(files: readonly FeatureFile[], here: readonly FeatureHere[], newId: NewId, choices: FeatureChoices = new Map()): FeaturePlan {
  const found = matchFiles(files, here);
  const planned = files.map((file): PlannedFeature => {
    const known = found.get(file);
    if (known === undefined) return { kind: 'added', file, content: withText({ ...EMPTY_FEATURE, path: file.path }, file.text, newId) };
    const { id, content: before } = known;
    const { content, conflicts } = merged(file, known, newId, choices.get(id));
    const isSame = conflicts.length === 0 && content.path === before.path && textOf(content) === textOf(before);
    return isSame ? { kind: 'same', file, id } : { kind: 'changed', file, id, before, content, conflicts };
  });
  const met = new Set([...found.values()].map((h) => h.id));
  return { planned, missing: here.flatMap(({ id, brought }) => (brought !== null && !met.has(id) ? [id] : [])) };
}

/** Features in conflict that nobody has chosen a side for. */
export function openFeatureConflicts({ planned }: FeaturePlan, choices: FeatureChoices): FeatureId[] {
  return planned.flatMap((p) => (p.kind === 'changed' && p.conflicts.length > 0 && !choices.has(p.id) ? [p.id] : []));
}

interface Merged {
  readonly content: FeatureContent;
  readonly conflicts: readonly Conflict[];
}

function merged({ path, text }: FeatureFile, { content: mine, brought }: FeatureHere, newId: NewId, side: Side | undefined): Merged {
  const placed = { ...mine, path };
  if (text === textOf(mine) || text === brought) return { content: placed, conflicts: [] };
  // Of one that never came from a file nobody knows what it grew from: all that differs is a conflict.
  const base = brought === null ? { ...placed, parts: [] } : withText(placed, brought, newId);
  const theirs = withText(base, text, newId, mine.parts);
  const contents = [asJson({ parts: base.parts }), asJson({ parts: mine.parts }), asJson({ parts: theirs.parts })] as const;
  const { content, conflicts } = mergeContent(...contents);
  const chosen = side === undefined || conflicts.length === 0 ? content : mergeContent(...contents, new Map(conflicts.map((c) => [c.path, side]))).content;
  const parts = (chosen as unknown as Pick<FeatureContent, 'parts'>).parts;
  return { content: { ...placed, parts, title: titleOf(readFeature(textOf({ parts })), path) }, conflicts };
}

/** With fewer lines in common a file is another one, not one that was renamed. */
const LEAST_ALIKE = 0.6;

function matchFiles(files: readonly FeatureFile[], here: readonly FeatureHere[]): Map<FeatureFile, FeatureHere> {
  const found = new Map<FeatureFile, FeatureHere>();
  const taken = new Set<FeatureHere>();
  // Exactly first: where small and capital letters differ, two files may have one name in the eyes of some systems only.
  for (const named of [(path: string) => path, (path: string) => path.toLowerCase()]) {
    const byPath = new Map(here.filter((h) => !taken.has(h)).toReversed().map((h) => [named(h.content.path), h]));
    for (const file of files) {
      const known = found.has(file) ? undefined : byPath.get(named(file.path));
      if (known === undefined || taken.has(known)) continue;
      found.set(file, known);
      taken.add(known);
    }
  }
  const free = new FilesByLine(here.filter((h) => h.brought !== null && !taken.has(h)));
  for (const file of files) {
    const renamed = found.has(file) ? undefined : free.take(file.text);
    if (renamed !== undefined) found.set(file, renamed);
  }
  return found;
}

/** Features whose files are gone, found by the lines they have: only those that share one are compared. */
class FilesByLine {
  readonly #lines = new Map<FeatureHere, ReadonlySet<string>>();
  readonly #having = new Map<string, FeatureHere[]>();

  constructor(features: readonly FeatureHere[]) {
    for (const feature of features) {
      const lines = meaningful(textOf(feature.content));
      this.#lines.set(feature, lines);
      for (const line of lines) this.#having.set(line, [...(this.#having.get(line) ?? []), feature]);
    }
  }

  /** The one most like a text, which is then no longer free; undefined: none is like it. */
  take(text: string): FeatureHere | undefined {
    if (this.#lines.size === 0) return undefined;
    const lines = meaningful(text);
    const common = new Map<FeatureHere, number>();
    for (const line of lines) for (const feature of this.#having.get(line) ?? []) common.set(feature, (common.get(feature) ?? 0) + 1);
    let best: { feature: FeatureHere; alike: number } | null = null;
    for (const [feature, count] of common) {
      const alike = (2 * count) / (lines.size + (this.#lines.get(feature)?.size ?? 0));
      if (this.#lines.has(feature) && alike >= LEAST_ALIKE && alike > (best?.alike ?? 0)) best = { feature, alike };
    }
    if (best !== null) this.#lines.delete(best.feature);
    return best?.feature;
  }
}

function meaningful(text: string): ReadonlySet<string> {
  return new Set(text.split('\n').map((line) => line.trim()).filter((line) => line !== ''));
}
