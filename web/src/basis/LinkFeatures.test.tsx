/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { textOf, type FeatureContent } from '@caderno/core/scenarios';
import { onThePage } from '../../test/onThePage.tsx';
import { featureHead, requirementHead, standInProject } from '../../test/standInProject.ts';
import { FeatureLines } from './FeatureLines.tsx';

afterEach(cleanup);

const scenario = (number: number, ...tags: string[]) => ({ number, name: '', tags, steps: 1, instances: 1 });
const requirement = requirementHead(2, { title: 'Valid reading', version: 5, module: 'Readings' });
const heads = [
  requirement,
  featureHead(1, { title: 'Bills', scenarios: [scenario(1, '@smoke'), scenario(2, '@by-hand')] }),
  featureHead(2, { title: 'Meters', path: 'valid-reading.feature', scenarios: [scenario(1, '@smoke', '@slow')] }),
  featureHead(3, { title: 'Known', requirements: ['R-2'] }),
  featureHead(4, { title: 'Old', state: 'withdrawn' }),
];
const nothingDone = { changed: 2, left: [], made: [], change: null };
const offered = () => within(screen.getByRole('list', { name: 'Features that could be linked' })).queryAllByRole('listitem').map((li) => li.textContent);

test('features are found by words, tags and how they are run, and linked by one command; a link is taken away', async () => {
  const server = standInProject(heads, [], { changeMany: () => nothingDone });
  onThePage(<FeatureLines requirement={requirement} />);
  await screen.findByRole('link', { name: /F-3 Known/ });
  fireEvent.click(screen.getByRole('button', { name: 'link features' }));
  await screen.findByRole('dialog', { name: 'Features for R-2' });
  await waitFor(() => expect(offered()).toEqual(['F-1Bills2 scenarios', 'F-2Meters1 scenario']));
  fireEvent.change(screen.getByLabelText('Tags of scenarios'), { target: { value: '@smoke and not @slow' } });
  await waitFor(() => expect(offered()).toEqual(['F-1Bills1 scenario']));
  fireEvent.change(screen.getByLabelText('Tags of scenarios'), { target: { value: '' } });
  fireEvent.click(screen.getByRole('button', { name: /^How their scenarios are run/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'run by hand' }));
  await waitFor(() => expect(offered()).toEqual(['F-1Bills1 scenario']));
  fireEvent.click(screen.getByRole('button', { name: /^How their scenarios are run/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'however they are run' }));
  fireEvent.click(screen.getByRole('button', { name: 'All' }));
  fireEvent.click(screen.getByRole('button', { name: 'Link 2 features' }));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Unlink F-3' }));
  await waitFor(() => expect(server.calls('changeMany').map((c) => c.body)).toMatchObject([
    { of: { ids: ['F-1', 'F-2'] }, done: { edit: { kind: 'writtenFor', requirement: 'R-2', seenVersion: 5, belongs: true } } },
    { of: { ids: ['F-3'] }, done: { edit: { kind: 'writtenFor', requirement: 'R-2', belongs: false } } },
  ]));
});

test('only the scenarios that fit are linked where some are asked for; each is led to, and more of the same feature may follow', async () => {
  const some = featureHead(7, { title: 'Some', requirements: ['R-2'], scenariosFor: [{ requirement: 'R-2', scenarios: [1, 4] }], scenarios: [{ ...scenario(1, '@smoke'), name: 'first' }, scenario(4)] });
  const server = standInProject([...heads, some], [], { changeMany: () => nothingDone });
  onThePage(<FeatureLines requirement={requirement} />);
  await screen.findByRole('link', { name: /F-7 Some/ });
  expect(['1', '4'].map((number) => screen.getByRole('link', { name: number }).getAttribute('href'))).toEqual(['/p/scenarios/F-7#1', '/p/scenarios/F-7#4']);
  fireEvent.click(screen.getByRole('button', { name: 'link features' }));
  await screen.findByRole('dialog', { name: 'Features for R-2' });
  expect(screen.queryByRole('button', { name: /^Link: / })).toBeNull();
  fireEvent.change(screen.getByLabelText('Tags of scenarios'), { target: { value: '@smoke' } });
  fireEvent.click(screen.getByRole('button', { name: /^How their scenarios are run/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'automated' }));
  await waitFor(() => expect(offered()).toEqual(['F-1Bills1 scenario', 'F-2Meters1 scenario', 'F-7Some1 scenario']));
  expect(screen.getByRole('button', { name: 'Link: only the scenarios that fit' })).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'All' }));
  // An expression that is half written links nothing, least of all whole features.
  fireEvent.change(screen.getByLabelText('Tags of scenarios'), { target: { value: '@smoke and' } });
  await screen.findByText(/The tags cannot be read yet/);
  expect(screen.getByRole('button', { name: /^Link \d features?$/ })).toMatchObject({ disabled: true });
  fireEvent.change(screen.getByLabelText('Tags of scenarios'), { target: { value: '@smoke' } });
  fireEvent.click(await screen.findByRole('button', { name: 'Link 3 features' }));
  await waitFor(() => expect(server.calls('changeMany').map((c) => c.body)).toMatchObject([{ of: { ids: ['F-1', 'F-2', 'F-7'] }, done: { edit: { tags: '(@smoke) and not @by-hand' } } }]));
});

test('a feature is begun for the requirement, under a file name that nobody has', async () => {
  const server = standInProject(heads, [], { createArtefact: ({ body }) => ({ kind: 'feature', summary: featureHead(5), content: (body as { content: FeatureContent }).content, draft: null }) });
  onThePage(<FeatureLines requirement={requirement} />);
  fireEvent.click(await screen.findByRole('button', { name: 'write a feature' }));
  await waitFor(() => expect(server.calls('createArtefact')).toHaveLength(1));
  const { content } = server.calls('createArtefact')[0]?.body as { content: FeatureContent };
  expect([content.path, content.title, content.module, content.requirements, textOf(content).split('\n')[0]]).toEqual(['valid-reading-2.feature', 'Valid reading', 'Readings', [{ id: 'R-2', seenVersion: 5, parts: [] }], 'Feature: Valid reading']);
});
