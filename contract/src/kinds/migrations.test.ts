import { expect, test } from '@jest/globals';
import { ARTEFACT_KINDS, type ArtefactKind } from '@caderno/core/artefacts';
import { KIND_SCHEMA, schemaVersionOf } from './index.ts';

/** A content of each kind as its first schema had it. */
const FIRST: Record<ArtefactKind, Record<string, unknown>> = {
  requirement: { title: 'R', text: '', type: 'rule', module: '', risk: 'low', priority: 'low', source: '' },
  condition: {
    title: 'K', polarity: 'both', risk: null, requirements: [{ id: 'R-1', seenVersion: 1, anchor: null }], leftOut: [],
    model: { kind: 'valueRanges', boundaries: 'twoValue', allowInvalidTogether: false, fields: [{ id: 'f', name: 'reading', type: { kind: 'whole' }, unit: '', required: true, intervals: [], choices: [], classes: [] }] },
  },
  case: {
    title: 'C', objective: '', preconditions: '', module: '', priority: 'low', tags: [], estimate: null, owner: '',
    steps: [{ kind: 'step', id: 's', action: 'enter <x>', expected: '' }],
    parameters: [{ id: 'p', name: 'x', type: 'text', default: '', description: '' }],
    rows: [{ id: 'r', name: 'low', cells: { p: '007' } }],
    covers: [{ id: 'K-1', seenVersion: 1, fields: [{ id: 'f', parameter: 'p' }], outcome: null, expects: [] }],
  },
  question: { title: 'Q', text: '', asked: '', about: [], status: 'open', answer: '', answeredBy: '', answeredAt: '', settledIn: [], observations: [] },
  shared: { title: 'S', purpose: '', steps: [{ kind: 'step', id: 's', action: 'sign in', expected: '' }], parameters: [], module: '', tags: [] },
  dataSet: { title: 'D', purpose: '', parameters: [], rows: [], serves: [], module: '', tags: [] },
  feature: { title: 'F', path: 'f.feature', parts: [{ id: 'h', kind: 'head', number: 0, lines: [{ id: 'l', text: 'Feature: F' }], covers: [] }], lastNumber: 0, requirements: [{ id: 'R-1', seenVersion: 1 }], module: '', owner: '', own: {} },
  suite: { title: 'U', purpose: '', folder: '', entries: [{ kind: 'part', id: 'p', title: 'First', depth: 1, rule: { of: 'cases', asks: 'tag:smoke', pinned: null } }, { kind: 'member', id: 'm', of: 'C-1', pinned: 'agreed' }], module: '', owner: '', tags: [], own: {} },
};

/** Stored in databases: a number never goes back. */
const TODAY: Record<ArtefactKind, number> = { requirement: 4, condition: 5, case: 7, question: 3, shared: 5, dataSet: 2, feature: 2, suite: 2 };

test.each(ARTEFACT_KINDS)('a %s of the first schema is readable, step by step, and keeps all it said', (kind) => {
  const { content, migrations } = KIND_SCHEMA[kind];
  expect(schemaVersionOf(kind)).toBe(TODAY[kind]);
  const migrated = migrations.reduce((stored, migrate) => migrate(stored), FIRST[kind]);
  const read = content.parse(migrated);
  expect(read).toMatchObject(FIRST[kind]);
  // Only the last step leads to what is read today.
  if (migrations.length > 0) expect(content.safeParse(FIRST[kind]).success).toBe(false);
});
