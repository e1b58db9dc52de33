import type { ArtefactId, ArtefactState } from '../artefacts/index.ts';

/** Baselines of a project are counted from 1: B-1, B-2, … */
export type BaselineNumber = number & { readonly __brand: 'BaselineNumber' };

/** The one maker of baseline numbers. */
export function baselineNumber(number: number): BaselineNumber {
  return number as BaselineNumber;
}

/** What a baseline holds of an artefact: an exact version, and how it stood. */
export interface Frozen {
  readonly id: ArtefactId;
  readonly version: number;
  /** The version with which the meaning it has in {@link version} began. */
  readonly meaningSince: number;
  readonly state: ArtefactState;
  readonly title: string;
  readonly module: string;
}

/** The line of an artefact in the text whose SHA-256 seals a baseline; `hash`: of the canonical content of its version. */
export function sealedLine({ id, version, state }: Pick<Frozen, 'id' | 'version' | 'state'>, hash: string): string {
  return `${id} v${version} ${state} ${hash}\n`;
}
