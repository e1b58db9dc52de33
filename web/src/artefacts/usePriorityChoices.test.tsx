/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, screen, waitFor } from '@testing-library/react';
import { PROJECT, onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { usePriorityChoices } from './index.ts';

afterEach(cleanup);

function Choices({ current }: { readonly current: string }) {
  return <p title="Choices">{usePriorityChoices(PROJECT, current).map(({ value, name }) => `${value}:${name}`).join(' ')}</p>;
}

test.each([
  ['should', 'must:Must should:Should'],
  ['high', 'must:Must should:Should high:High'],
])('the project’s priorities in their order, and what an artefact has besides: %s', async (current, choices) => {
  standInProject([], [], { readSettings: () => ({ version: 1, settings: { ...DEFAULT_SETTINGS, priorities: ['must', 'should'] } }) });
  onThePage(<Choices current={current} />);
  await waitFor(() => expect(screen.getByTitle('Choices').textContent).toBe(choices));
});
