import type { ArtefactId } from './artefact.ts';

/** A trace link as a content holds it: what it leads to, and the version of it that somebody had in view. */
export interface SeenLink {
  readonly id: ArtefactId;
  readonly seenVersion: number;
}

/**
 * Whether what a trace link leads to has changed in meaning since somebody saw it. `meaningSince` is the version with
 * which the present meaning began. The database counts suspect links by the same comparison (`SUSPECT_SQL`).
 */
export function isSuspect(link: Pick<SeenLink, 'seenVersion'>, target: { readonly meaningSince: number } | undefined): boolean {
  return target !== undefined && link.seenVersion < target.meaningSince;
}

/** The link after somebody said that it is still right with a version; it never goes back. */
export function withSeen<L extends SeenLink>(link: L, version: number): L {
  return version <= link.seenVersion ? link : { ...link, seenVersion: version };
}

/** Whether something means another thing now than what was agreed last; what was never agreed is newer than nothing. */
export function isNewerThanAgreed({ agreed, meaningSince }: { readonly agreed?: number | null; readonly meaningSince?: number }): boolean {
  return agreed != null && meaningSince !== undefined && agreed < meaningSince;
}
