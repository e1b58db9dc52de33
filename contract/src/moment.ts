import { baselineNumber, type BaselineNumber } from '@caderno/core/baselines';
import { z } from 'zod';

/**
 * A moment at which a project is read as a whole: as a baseline holds it, or as it was right after a revision of its journal.
 * `agreedOnly`: everything at the version that had been agreed last then; what never was agreed is left out, the basis and what is used aside.
 * `part`: only the modules that somebody sees, which `modules` names for the server alone.
 */
export type Moment =
  | { readonly kind: 'baseline'; readonly baseline: BaselineNumber }
  | { readonly kind: 'revision'; readonly revision: number; readonly agreedOnly: boolean }
  | { readonly kind: 'part'; readonly revision: number; readonly modules: string };

const SPELLING = /^(?:B-(?<baseline>[1-9]\d{0,8})|(?<revision>\d{1,9})-part-(?<modules>[0-9a-f]{16})|(?<past>[1-9]\d{0,8})(?<agreed>-agreed)?)$/;

/** A moment as it stands in addresses: `B-2`, `120`, `120-agreed`, or `120-part-0123456789abcdef`. */
export function momentText(moment: Moment): string {
  switch (moment.kind) {
    case 'baseline':
      return `B-${moment.baseline}`;
    case 'revision':
      return `${moment.revision}${moment.agreedOnly ? '-agreed' : ''}`;
    case 'part':
      return `${moment.revision}-part-${moment.modules}`;
  }
}

/** @throws {RangeError} on what {@link momentTextSchema} does not take. */
export function momentOfText(text: string): Moment {
  const { baseline, revision, modules, past, agreed } = SPELLING.exec(text)?.groups ?? {};
  if (baseline !== undefined) return { kind: 'baseline', baseline: baselineNumber(Number(baseline)) };
  if (revision !== undefined && modules !== undefined) return { kind: 'part', revision: Number(revision), modules };
  if (past === undefined) throw new RangeError(`A moment is spelt like B-2, 120, 120-agreed or 120-part-0123456789abcdef: got ${text}`);
  return { kind: 'revision', revision: Number(past), agreedOnly: agreed !== undefined };
}

/** As it stands in a path. */
export const momentTextSchema = z.string().regex(SPELLING);

/** The key of a project as it was at a moment. */
export function momentKey(project: string, moment: Moment): string {
  return `${project}@${momentText(moment)}`;
}

/** What a key is a moment of; null when it is that of a project as it is now. @throws {RangeError} on a key that is none. */
export function momentOfKey(key: string): { readonly project: string; readonly moment: Moment } | null {
  const [project = '', text] = key.split('@');
  return text === undefined ? null : { project, moment: momentOfText(text) };
}
