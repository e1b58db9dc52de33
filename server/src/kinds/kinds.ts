import type { ArtefactKind } from '@caderno/core/artefacts';
import type { RiskScale } from '@caderno/core/basis';
import type { OwnValues } from '@caderno/core/fields';
import type { KindAndContent, Summary } from '@caderno/contract';
import type { z } from 'zod';
import { storedCase } from './case.ts';
import { storedCondition } from './condition.ts';
import { storedDataSet } from './dataSet.ts';
import { storedFeature } from './feature.ts';
import type { CommonHead, OwnColumns, StoredKind, SummaryColumns } from './kind.ts';
import { storedQuestion } from './question.ts';
import { storedRequirement } from './requirement.ts';
import { storedShared } from './shared.ts';
import { storedSuite } from './suite.ts';

const STORED_KINDS = {
  requirement: storedRequirement,
  condition: storedCondition,
  case: storedCase,
  question: storedQuestion,
  shared: storedShared,
  dataSet: storedDataSet,
  feature: storedFeature,
  suite: storedSuite,
} as const;

/** The facts each kind keeps in a column of its own form. */
type FactsOfKind = { [K in ArtefactKind]: z.infer<(typeof STORED_KINDS)[K]['facts']> };
const TABLE: { readonly [K in ArtefactKind]: StoredKind<K, FactsOfKind[K]> } = STORED_KINDS;

/** The columns of an artefact, derived from its content in the transaction that stores it. */
export function summaryColumns<K extends ArtefactKind>({ kind, content }: KindAndContent<K>, scale: RiskScale): SummaryColumns & { readonly own: OwnValues } {
  return { ...TABLE[kind].columns(content, scale), own: shortened(content.own) };
}

/** Letters of a long text that a list shows; all of it is found by what is asked of the contents. */
const MOST_SHOWN = 300;

function shortened(own: OwnValues): OwnValues {
  return Object.fromEntries(Object.entries(own).map(([id, value]) => [id, typeof value === 'string' && value.length > MOST_SHOWN ? `${value.slice(0, MOST_SHOWN).toWellFormed()}…` : value]));
}

/** A head of its columns. They were written from checked content; what they leave open, the facts, is checked here: where it cannot be read, a list shows the name, and that it is broken. */
export function summaryOf<K extends ArtefactKind>(kind: K, head: CommonHead, own: OwnColumns, storedFacts: unknown): Summary {
  const { facts, noFacts, summary } = TABLE[kind];
  const read = facts.safeParse(storedFacts);
  return read.success ? summary(head, own, read.data) : summary({ ...head, broken: true }, own, noFacts);
}
