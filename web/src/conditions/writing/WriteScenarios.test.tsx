/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { EMPTY_CASE, newCover, newRow, parameterId, plainStep, rowId, stepId, type CaseContent } from '@caderno/core/cases';
import { EMPTY_CONDITION, fieldId } from '@caderno/core/conditions';
import type { SeenCondition } from '@caderno/core/coverage';
import { EMPTY_FEATURE, scenariosAsCases, textOf, withNumbers, withText, type FeatureContent } from '@caderno/core/scenarios';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { onThePage } from '../../../test/onThePage.tsx';
import { featureHead, requirementHead, standInProject } from '../../../test/standInProject.ts';
import { WriteScenarios } from './WriteScenarios.tsx';

afterEach(cleanup);

let made = 0;
const [field, carrier, outcome] = [fieldId('f'), parameterId('p1'), parameterId('p2')];
const CONDITION: SeenCondition = { id: 'K-4', version: 3, content: { ...EMPTY_CONDITION, title: 'Reading value', requirements: [{ id: 'R-2', seenVersion: 1, anchor: null }] } };
const parameter = (id: typeof carrier, name: string) => ({ id, name, type: 'text' as const, default: '', description: '' });
const DRAFT: CaseContent = {
  ...EMPTY_CASE,
  title: 'Reading value',
  steps: [plainStep(stepId('s'), 'reading is <reading>', '<outcome>')],
  parameters: [parameter(carrier, 'reading'), parameter(outcome, 'outcome')],
  rows: [newRow(rowId('r'), 'below', { [carrier]: '-1', [outcome]: 'refused' })],
  covers: [{ ...newCover('K-4', 3), fields: [{ id: field, parameter: carrier }], outcome, expects: [stepId('s')] }],
};
const proposed = [{ name: 'below', values: [{ field, cell: '-1' }], outcome: 'refused', shows: [] }];
const OUTLINE = 'Feature: Readings\n  Scenario Outline: edges\n    When reading is <r>\n    Then <says>\n\n    Examples:\n      | r | says |\n      | 1 | kept |\n';

function write(covering: boolean) {
  const bare = withNumbers(withText({ ...EMPTY_FEATURE, path: 'readings.feature' }, OUTLINE, () => `i${(made += 1)}`), null);
  const covers = [{ ...newCover('K-4', 3), fields: [{ id: field, parameter: parameterId('r') }], outcome: parameterId('says') }];
  const content = { ...bare, parts: bare.parts.map((p) => (covering && p.number === 1 ? { ...p, covers } : p)) };
  const heads = [requirementHead(2, { version: 5 }), featureHead(1, { title: 'Readings', path: 'reading-value.feature', version: 6, ...(covering ? { covers: ['K-4'] } : {}) })];
  const server = standInProject(heads, [], {
    readArtefact: () => ({ kind: 'feature', summary: heads[1] as ReturnType<typeof featureHead>, content, draft: null }),
    writeArtefacts: () => ({ change: null, made: [] }),
  });
  const closed: boolean[] = [];
  onThePage(<WriteScenarios drafts={[DRAFT]} requirements={['R-2']} title="Reading value" module="Readings" detail="Scenarios for K-4" rows={{ condition: CONDITION, proposed }} onClose={() => closed.push(true)} />);
  return { server, closed };
}
const preview = (): string => screen.getByLabelText('What the file would say').textContent ?? '';
const choose = async (label: string, option: RegExp): Promise<void> => {
  fireEvent.click(screen.getByRole('button', { name: new RegExp(`^${label}`) }));
  fireEvent.click(await screen.findByRole('option', { name: option }));
};

test('where nothing is written for it yet, a new feature is, for its requirement and under a name that no file has', async () => {
  const { server, closed } = write(false);
  await waitFor(() => expect(preview()).toContain('Scenario Outline: Reading value\n    When reading is <reading>\n    Then <outcome>\n\n    Examples:\n      | case  | reading | outcome |\n      | below |'));
  fireEvent.click(screen.getByRole('button', { name: 'Write 1 scenario' }));
  await waitFor(() => expect(closed).toEqual([true]));
  const { made: sent } = server.calls('writeArtefacts')[0]?.body as { made: { content: FeatureContent }[] };
  const content = sent[0]?.content ?? EMPTY_FEATURE;
  expect([content.path, content.title, content.module, content.requirements]).toEqual(['reading-value-2.feature', 'Reading value', 'Readings', [{ id: 'R-2', seenVersion: 5, parts: [] }]]);
  const [scenario] = scenariosAsCases('F-1', withNumbers(content, null));
  expect(scenario?.content.covers).toMatchObject([{ id: 'K-4', seenVersion: 3, fields: [{ id: field, parameter: 'reading' }], outcome: 'outcome' }]);
});

test('an outline that covers it takes the rows in its own columns; or a scenario of its own is written there', async () => {
  const { server } = write(true);
  await waitFor(() => expect(preview()).toContain('|  1 | kept    |\n      | -1 | refused |'));
  await choose('As what', /a scenario of its own/);
  expect(preview()).toContain('Scenario Outline: Reading value');
  await choose('As what', /rows of F-1\/1 edges/);
  fireEvent.click(screen.getByRole('button', { name: 'Add the rows' }));
  await waitFor(() => expect(server.calls('writeArtefacts')).toHaveLength(1));
  const { changed } = server.calls('writeArtefacts')[0]?.body as { changed: { id: string; version: number; content: FeatureContent }[] };
  expect(changed.map((c) => [c.id, c.version, textOf(c.content)])).toEqual([['F-1', 6, OUTLINE.replace('| r | says |\n      | 1 | kept |', '|  r | says    |\n      |  1 | kept    |\n      | -1 | refused |').replace('|  r |', '| r  |')]]);
});
