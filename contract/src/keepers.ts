import { z } from 'zod';
import { LIMITS } from './limits.ts';
import { isEachOnce } from './once.ts';
import { roleReaches, type Role } from './people.ts';
import { trimmedTextUpTo } from './text.ts';

/** The people who change what is in a module, besides leads and administrators. A module that is not named is everybody's who may edit. */
export interface Keepers {
  readonly module: string;
  /** Ids of people. Who left the project keeps nothing: then only leads do. */
  readonly people: readonly string[];
}

const keepersOfModule: z.ZodType<Keepers> = z.strictObject({ module: trimmedTextUpTo(LIMITS.name).refine((name) => name !== '', 'must not be empty'), people: z.array(z.uuid()).min(1).max(LIMITS.keepers).refine(isEachOnce, 'must not repeat') });

/** See {@link Keepers}; each module is named once. */
export const keepersSchema: z.ZodType<readonly Keepers[]> = z.array(keepersOfModule).max(LIMITS.modules).refine((list) => isEachOnce(list.map((k) => k.module)), 'modules must not repeat');

/** The modules that somebody may not change anything of, however much they may elsewhere. */
export function modulesKeptFrom(keepers: readonly Keepers[], who: { readonly id: string; readonly role: Role }): string[] {
  return roleReaches(who.role, 'lead') ? [] : keepers.filter(({ people }) => !people.includes(who.id)).map(({ module }) => module);
}

/** Who changes a module, in words: `Rui M., Duarte P. and leads`. */
export function keepersWords(names: readonly string[]): string {
  return names.length === 0 ? 'leads' : `${names.join(', ')} and leads`;
}

/** Who keeps a module from now on; nobody: it is everybody's. */
export function withKeepers(keepers: readonly Keepers[], module: string, people: readonly string[]): Keepers[] {
  const others = keepers.filter((k) => k.module !== module);
  return people.length === 0 ? others : [...others, { module, people }];
}

/** The same under a module's new name; where that one has keepers already, it has those of both. */
export function keepersRenamed(keepers: readonly Keepers[], from: string, to: string): Keepers[] {
  const of = (module: string): readonly string[] => keepers.find((k) => k.module === module)?.people ?? [];
  return of(from).length === 0 ? [...keepers] : withKeepers(withKeepers(keepers, from, []), to, [...new Set([...of(to), ...of(from)])]);
}
