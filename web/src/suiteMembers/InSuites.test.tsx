/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import type { SuiteOf } from '@caderno/contract';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { InSuites } from './InSuites.tsx';

afterEach(cleanup);

const HAND: SuiteOf = { id: 'U-1', title: 'Smoke', members: [{ of: 'F-1/2', pinned: null, byRule: false }, { of: 'F-1/3', pinned: 4, byRule: true }] };
const note = () => screen.getByText('In suites').parentElement?.parentElement;

test('the suites that scenarios are in are named, with which of them, what they stay with, and the rule that keeps them there', async () => {
  const rule: SuiteOf = { id: 'U-2', title: 'Night', members: [{ of: 'F-1/2', pinned: 'agreed', byRule: true }] };
  standInProject([], [], { readSuitesOf: () => [HAND, rule] });
  onThePage(<InSuites id="F-1" />, { project: 'in-suites' }, '/in-suites/scenarios', '/in-suites/scenarios');
  await screen.findByText('In suites');
  expect([...(note()?.querySelectorAll('li') ?? [])].map((li) => li.textContent)).toEqual(['U-1Smoke /2 /3, v4', 'U-2Night /2, as agreed last, by a rule']);
  expect(screen.getByRole('link', { name: 'U-2' }).getAttribute('href')).toBe('/in-suites/suites/U-2');
});

test('of many the first are named, and all when asked; where there are none nothing stands there', async () => {
  const many = Array.from({ length: 9 }, (_, i): SuiteOf => ({ id: `U-${i + 1}`, title: `Suite ${i + 1}`, members: [{ of: 'C-1', pinned: null, byRule: false }] }));
  const { called } = standInProject([], [], { readSuitesOf: ({ params }) => (params.id === 'C-1' ? many : []) });
  onThePage(<><InSuites id="C-1" /><InSuites id="C-2" /></>, { project: 'in-many' }, '/in-many/cases', '/in-many/cases');
  fireEvent.click(await screen.findByRole('button', { name: 'and 3 more' }));
  expect(screen.getAllByRole('link')).toHaveLength(9);
  expect(called.filter((c) => c.name === 'readSuitesOf')).toHaveLength(2);
  expect(screen.getAllByText('In suites')).toHaveLength(1);
});
