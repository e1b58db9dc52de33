import type { CoveringId } from '../artefacts/index.ts';
import type { Execution } from '../cases/index.ts';
import type { Configuration } from '../shared/index.ts';
import { configurationsRun, type RunsIn } from '../suites/index.ts';

/** Hand-offs of a project are counted from 1: H-1, H-2, … */
export type HandOffNumber = number & { readonly __brand: 'HandOffNumber' };

/** The one maker of hand-off numbers. */
export function handOffNumber(number: number): HandOffNumber {
  return number as HandOffNumber;
}

/** A case or scenario to be executed in a configuration (null: in none), all its instances by one person. */
export interface HandOffLine {
  readonly of: CoveringId;
  /** The exact version, of a scenario that of its feature. */
  readonly version: number;
  readonly title: string;
  readonly module: string;
  readonly owner: string;
  readonly execution: Execution;
  readonly configuration: Configuration['id'] | null;
  readonly instances: number;
  /** That one instance takes; null: nobody has said. */
  readonly minutes: number | null;
  /** Empty: nobody. */
  readonly person: string;
}

/** A case or scenario before it is a line in each configuration. */
export interface HandedMember extends Omit<HandOffLine, 'configuration' | 'person'> {
  readonly runsIn: RunsIn;
}

/** The lines of members in some configurations, nobody's yet: each in those in which it runs; without any, once. */
export function handOffLines(members: readonly HandedMember[], configurations: readonly Configuration['id'][]): HandOffLine[] {
  return members.flatMap(({ of, version, title, module, owner, execution, instances, minutes, runsIn }) =>
    configurationsRun(runsIn, configurations).map((configuration): HandOffLine => ({ of, version, title, module, owner, execution, configuration, instances, minutes, person: '' })),
  );
}

/** Instances that one hand-off may come to, counted before any is made. */
export const MOST_HANDED_OFF = 100_000;

/** What a line is called by among those of its hand-off. */
export function lineKey({ of, configuration }: Pick<HandOffLine, 'of' | 'configuration'>): string {
  return configuration === null ? of : `${of}@${configuration}`;
}

/** How configurations are called in a hand-off: by their names, and by their ids too where several have one name. */
export function configurationNames(configurations: readonly Pick<Configuration, 'id' | 'name'>[]): ReadonlyMap<Configuration['id'], string> {
  const isTaken = (name: string, id: string): boolean => configurations.some((c) => c.name === name && c.id !== id);
  return new Map(configurations.map(({ id, name }) => [id, isTaken(name, id) ? `${name} (${id})` : name]));
}

/** What somebody has to do. */
export interface PersonalShare {
  /** Empty: nobody. */
  readonly person: string;
  readonly lines: number;
  readonly instances: number;
  /** Of the instances whose minutes are known. */
  readonly minutes: number;
  readonly withoutMinutes: number;
}

/** Who has to do how much, in the order in which people first appear; what nobody does comes last. What is automated counts nowhere. */
export function personalShares(lines: readonly Pick<HandOffLine, 'person' | 'instances' | 'minutes' | 'execution'>[]): PersonalShare[] {
  const shares = new Map<string, PersonalShare>();
  for (const { person, instances, minutes, execution } of lines) {
    if (execution === 'automated') continue;
    const share = shares.get(person) ?? { person, lines: 0, instances: 0, minutes: 0, withoutMinutes: 0 };
    shares.set(person, { person, lines: share.lines + 1, instances: share.instances + instances, minutes: share.minutes + instances * (minutes ?? 0), withoutMinutes: share.withoutMinutes + (minutes === null ? 1 : 0) });
  }
  return [...shares.values()].toSorted((a, b) => Number(a.person === '') - Number(b.person === ''));
}
