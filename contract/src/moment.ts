import { baselineNumber, type BaselineNumber } from '@caderno/core/baselines';
import { z } from 'zod';

/**
 * A moment at which a project is read as a whole: as a baseline holds it, or as it was right after a revision of its journal.
 * `agreedOnly`: everything at the version that had been agreed last then; what never was agreed is left out, the basis and what is used aside.
 */
export type Moment = { readonly kind: 'baseline'; readonly baseline: BaselineNumber } | { readonly kind: 'revision'; readonly revision: number; readonly agreedOnly: boolean };

const SPELLING = /^(?:B-(?<baseline>[1-9]\d{0,8})|(?<revision>[1-9]\d{0,8})(?<agreed>-agreed)?)$/;

/** A moment as it stands in addresses: `B-2`, `120`, or `120-agreed`. */
export function momentText(moment: Moment): string {
  switch (moment.kind) {
    case 'baseline':
      return `B-${moment.baseline}`;
    case 'revision':
      return `${moment.revision}${moment.agreedOnly ? '-agreed' : ''}`;
  }
}

/** @throws {RangeError} on what {@link momentTextSchema} does not take. */
export function momentOfText(text: string): Moment {
  const { baseline, revision, agreed } = SPELLING.exec(text)?.groups ?? {};
  if (baseline !== undefined) return { kind: 'baseline', baseline: baselineNumber(Number(baseline)) };
  if (revision === undefined) throw new RangeError(`A moment is spelt like B-2, 120 or 120-agreed: got ${text}`);
  return { kind: 'revision', revision: Number(revision), agreedOnly: agreed !== undefined };
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
