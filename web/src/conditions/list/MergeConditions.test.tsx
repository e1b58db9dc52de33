/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { newCover, stepId } from '@caderno/core/cases';
import { EMPTY_CONDITION } from '@caderno/core/conditions';
import type { Design, DesignCondition } from '@caderno/core/coverage';
import { EMPTY_FEATURE, withNumbers, withText, type FeatureContent } from '@caderno/core/scenarios';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../../test/onThePage.tsx';
import { featureHead, standInProject } from '../../../test/standInProject.ts';
import { MergeConditions } from './MergeConditions.tsx';

afterEach(cleanup);

let made = 0;
const condition = (n: number): DesignCondition => ({ id: `K-${n}`, state: 'draft', version: n, meaningSince: 1, content: { ...EMPTY_CONDITION, title: `Condition ${n}`, requirements: [{ id: `R-${n}`, seenVersion: 1, anchor: null }] } });
const DESIGN: Design = { requirements: [], conditions: [condition(1), condition(2)], cases: [], questions: [], library: [], riskWeights: { high: 3, medium: 2, low: 1 }, mostItems: 1_000, constants: [] };

test('scenarios that cover what is absorbed cover what stays, in the same entry', async () => {
  const bare = withNumbers(withText({ ...EMPTY_FEATURE, path: 'a.feature' }, 'Feature: f\n  Scenario: a\n    Then x\n  Scenario: b\n    Then y\n', () => `i${(made += 1)}`), null);
  const content = { ...bare, parts: bare.parts.map((p) => ({ ...p, covers: p.number === 1 ? [{ ...newCover('K-2', 2), expects: [stepId('s')] }] : p.number === 2 ? [newCover('K-7', 1)] : [] })) };
  const head = featureHead(1, { version: 9, covers: ['K-2', 'K-7'] });
  const server = standInProject([head, featureHead(2, { covers: ['K-7'] })], [], {
    readArtefact: () => ({ kind: 'feature', summary: head, content, draft: null }),
    writeArtefacts: () => ({ change: null, made: [] }),
  });
  onThePage(<MergeConditions chosen={[condition(1), condition(2)]} design={DESIGN} onClose={() => undefined} onDone={() => undefined} />);
  await screen.findByText(/Scenarios of F-1 likewise/);
  fireEvent.click(screen.getByRole('button', { name: 'Merge into K-1' }));
  await waitFor(() => expect(server.calls('writeArtefacts')).toHaveLength(1));
  const { changed, withdrawn } = server.calls('writeArtefacts')[0]?.body as { changed: { id: string; version: number; content: FeatureContent }[]; withdrawn: string[] };
  expect([changed.map((c) => [c.id, c.version]), withdrawn]).toEqual([[['F-1', 9], ['K-1', 1]], ['K-2']]);
  expect(changed[0]?.content.parts.map((p) => p.covers.map((c) => [c.id, c.seenVersion, c.expects]))).toEqual([[], [['K-1', 1, ['s']]], [['K-7', 1, []]]]);
});
