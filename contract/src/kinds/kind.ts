import type { z } from 'zod';

/** Brings a stored content from one schema to the next. */
export type Migration = (stored: Record<string, unknown>) => Record<string, unknown>;

/** What the contract says of a kind of artefact; all kinds stand in `KIND_SCHEMA`. */
export interface KindSchema<C, S> {
  /** What a version holds. */
  readonly content: z.ZodType<C>;
  /** What lists show: its head. */
  readonly summary: z.ZodType<S> & { readonly shape: Readonly<Record<string, z.ZodType>> };
  /** What older schemas lack; step n leads from schema n to n + 1. Old versions stay readable for ever. */
  readonly migrations: readonly Migration[];
}
