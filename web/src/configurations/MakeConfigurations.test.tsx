/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, jest, test } from '@jest/globals';
import { madeConfigurations, type Environment } from '@caderno/core/configurations';
import type { Configuration } from '@caderno/core/shared';
import { LIMITS } from '@caderno/contract';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ConfigurationsWorker } from './configurations.worker.ts';

// The worker’s work, at once and here.
const beside: { readonly make: (...asked: Parameters<ConfigurationsWorker['make']>) => Promise<ReturnType<ConfigurationsWorker['make']>> } = {
  make: (environment, asked, there) => {
    let n = 0;
    return Promise.resolve(madeConfigurations(environment, asked, there, () => `n${(n += 1)}`));
  },
};
Object.assign(globalThis, { Worker: jest.fn() });
jest.unstable_mockModule('comlink', () => ({ wrap: () => beside, expose: () => undefined }));
const { MakeConfigurations } = await import('./index.ts');

afterEach(cleanup);

const ENVIRONMENT: Environment = { factors: [{ id: 'd', name: 'device', values: ['computer', 'telephone'] }, { id: 'r', name: 'role', values: ['clerk', 'reader', 'member'] }, { id: 's', name: 'season', values: ['dry', 'wet'] }], rules: 'if role = reader then device = telephone\nnot (season = wet and device = telephone)' };
const COUNTER: Configuration = { id: 'k1', name: 'At the counter', factors: [{ name: 'device', value: 'computer' }, { name: 'role', value: 'clerk' }] };

function making(there: readonly Configuration[] = [COUNTER], environment = ENVIRONMENT) {
  const taken: { readonly made: number; readonly fresh: readonly string[] }[] = [];
  render(<MakeConfigurations environment={environment} there={there} verb={(count) => `Run in ${count}`} onTake={(made, fresh) => taken.push({ made: made.length, fresh: fresh.map((c) => c.name) })} onClose={() => undefined} />);
  return taken;
}
const said = (sentence: string | RegExp) => waitFor(() => expect(screen.getByRole('status').textContent).toMatch(sentence));
const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }));
const take = () => screen.getByRole<HTMLButtonElement>('button', { name: /^Run in/ });
const combine = async (how: string): Promise<void> => {
  fireEvent.click(screen.getByRole('button', { name: /^Combined/ }));
  fireEvent.click(await screen.findByRole('option', { name: how }));
};

test('values are ticked and combined under the rules; those that the project has are taken as they are', async () => {
  const taken = making();
  // A reader has a telephone, and a telephone no wet season: 3 pairs of 16 are ruled out.
  await said(/^13 combinations of values in \d configurations\.$/);
  tick('season');
  await combine('everything with everything');
  await said('5 combinations of values in 5 configurations, 1 of them there already.');
  expect(screen.getByText(/^Left aside/).textContent).toBe('Left aside, about factors that are not ticked: “not (season = wet and device = telephone)”.');
  expect(screen.getAllByRole('row').map((row) => [...row.children].map((cell) => cell.textContent))).toContainEqual(['computer', 'clerk', 'At the counter']);
  tick('member');
  await said('3 combinations of values in 3 configurations, 1 of them there already.');
  fireEvent.click(take());
  expect(taken.map(({ made, fresh }) => [made, fresh.toSorted()])).toEqual([[3, ['telephone, clerk', 'telephone, reader']]]);
});

test('what cannot be made says why, and is not taken', async () => {
  const taken = making();
  tick('telephone');
  await said('The rules allow no configuration with role = reader among these values: tick more, or untick it.');
  for (const name of ['device', 'role']) tick(name);
  await said('2 combinations of values in 2 configurations.');
  for (const name of ['dry', 'wet']) tick(name);
  await said('Tick at least one value of season.');
  tick('season');
  await said('Tick at least one factor.');
  expect(take().disabled).toBe(true);
  cleanup();

  making([], { ...ENVIRONMENT, rules: 'if colour = red then role = clerk\nrole = cook' });
  await said(/^The rule “if colour = red then role = clerk” cannot be read\. No factor is called “colour”\. The rule “role = cook” cannot be read\. “cook” is no value of role\.$/);
  cleanup();

  making(Array.from({ length: LIMITS.configurations - 1 }, (_, i) => ({ ...COUNTER, id: `k${i}`, factors: [] })));
  expect((await screen.findByRole('alert')).textContent).toContain('there is room for 1 more');
  expect([take().disabled, taken]).toEqual([true, []]);
  cleanup();

  making([], { factors: Array.from({ length: 8 }, (_, i) => ({ id: `f${i}`, name: `f${i}`, values: [...'abcdefghij'] })), rules: '' });
  await combine('everything with everything');
  await said('100,000,000 combinations are more than the 20,000 that can be made.');
});
