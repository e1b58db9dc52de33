import type { RequirementId } from '../artefacts/index.ts';
import type { Cover } from '../cases/index.ts';
import { NO_OWN, type OwnValues } from '../fields/index.ts';

export type PartId = string & { readonly __brand: 'PartId' };
export type LineId = string & { readonly __brand: 'LineId' };

/** The one maker of part ids. */
export function partId(text: string): PartId {
  return text as PartId;
}

/** The one maker of line ids. */
export function lineId(text: string): LineId {
  return text as LineId;
}

/** A line of the file, as it is written, without the line feed that ends it; a carriage return and a byte order mark are of it. */
export interface FeatureLine {
  readonly id: LineId;
  readonly text: string;
}

/** `head`: all that stands before the first of the others. */
export const PART_KINDS = ['head', 'background', 'rule', 'scenario'] as const;
export type PartKind = (typeof PART_KINDS)[number];

/**
 * A piece of a feature file that moves, changes and is merged by itself: a scenario with the tags and comments right
 * above it and its examples, a background, the head of a rule, the head of the file.
 */
export interface FeaturePart {
  readonly id: PartId;
  readonly kind: PartKind;
  /** Of a scenario: the number it is called by (F-2/3), never used again; 0: it gets one when it is saved, and nothing else has any. */
  readonly number: number;
  readonly lines: readonly FeatureLine[];
  /** The conditions a scenario covers: columns of its examples and values in its steps carry their fields, its steps their events. Parameters and steps are those of {@link scenariosAsCases}. */
  readonly covers: readonly Cover[];
}

/** The trace link from a feature to a requirement. */
export interface FeatureCover {
  readonly id: RequirementId;
  readonly seenVersion: number;
  /** The scenarios that are written for it; empty: the feature as a whole is. */
  readonly parts: readonly PartId[];
}

/** What a version of a feature holds: the file, byte for byte, and what Caderno knows of it. */
export interface FeatureContent {
  /** As the file says; the name of the file where it says nothing. */
  readonly title: string;
  /** Where the file stands among the others: folders and name, parted by `/`. */
  readonly path: string;
  /** In the order of the file: their lines one after the other are the file. */
  readonly parts: readonly FeaturePart[];
  /** The highest number a scenario has had. */
  readonly lastNumber: number;
  readonly requirements: readonly FeatureCover[];
  readonly module: string;
  /** Display name of a member; empty: nobody. */
  readonly owner: string;
  /** Values of the project's own fields. */
  readonly own: OwnValues;
}

export const EMPTY_FEATURE: FeatureContent = { title: '', path: '', parts: [], lastNumber: 0, requirements: [], module: '', owner: '', own: NO_OWN };

/** The text of the file. */
export function textOf({ parts }: Pick<FeatureContent, 'parts'>): string {
  return parts.flatMap((part) => part.lines.map((line) => line.text)).join('\n');
}

/** The folder of a feature, without a slash at the end; empty at the top. */
export function folderOf(path: string): string {
  return path.slice(0, Math.max(0, path.lastIndexOf('/')));
}

/** The name of the file without its ending. */
export function fileNameOf(path: string): string {
  return path.slice(path.lastIndexOf('/') + 1).replace(/\.feature$/i, '');
}

/** Where a line of the file (from 0) stands in the content, as `parts/p2/lines/l7`; empty: there is none. */
export function pathOfLine({ parts }: Pick<FeatureContent, 'parts'>, line: number): string {
  let before = 0;
  for (const part of parts) {
    const within = part.lines[line - before];
    if (line - before < part.lines.length && within !== undefined) return `parts/${part.id}/lines/${within.id}`;
    before += part.lines.length;
  }
  return '';
}
