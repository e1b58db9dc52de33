/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { EMPTY_REQUIREMENT, type RequirementContent } from '@caderno/core/basis';
import { DEFAULT_SETTINGS } from '@caderno/contract';
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { onThePage } from '../../test/onThePage.tsx';
import { standInProject } from '../../test/standInProject.ts';
import { Risk, RiskRating } from './RiskChoices.tsx';

beforeEach(() => void standInProject([], [], {}));
afterEach(cleanup);

let now: RequirementContent;
const keep = (content: RequirementContent): RequirementContent => (now = content);

function Page({ first, canEdit = true }: { readonly first: Partial<RequirementContent>; readonly canEdit?: boolean }) {
  const [content, setContent] = useState(() => keep({ ...EMPTY_REQUIREMENT, ...first }));
  const given = { content, canEdit, update: (change: (content: RequirementContent) => RequirementContent) => setContent((before) => keep(change(before))) };
  return (
    <>
      <Risk {...given} />
      <RiskRating {...given} />
    </>
  );
}

const { likelihood, impact } = DEFAULT_SETTINGS.riskScale;
const choose = async (label: RegExp, name: string): Promise<void> => {
  fireEvent.click(await screen.findByRole('button', { name: label }));
  fireEvent.click(await screen.findByRole('option', { name }));
};
const risk = (): HTMLButtonElement => screen.getByRole('button', { name: /^Risk:/ });

test('a risk is said outright; rated by one part it begins in the middle of the other, and the risk follows', async () => {
  onThePage(<Page first={{ risk: 'low' }} />);
  await choose(/^Risk:/, 'High risk');
  expect([now.risk, now.rating]).toEqual(['high', null]);
  await choose(/^Likelihood:/, likelihood.at(-1)!);
  expect(now.rating).toEqual({ likelihood: likelihood.length - 1, impact: Math.floor(impact.length / 2) });
  // What is rated is no longer said outright.
  expect(risk().disabled).toBe(true);
  await choose(/^Impact:/, impact[0]!);
  expect(now.rating).toEqual({ likelihood: likelihood.length - 1, impact: 0 });
  const shown = risk().textContent;
  await choose(/^Impact:/, 'not rated');
  expect([now.rating, risk().disabled, risk().textContent]).toEqual([null, false, shown]);
});

test('who may only read changes nothing', async () => {
  onThePage(<Page first={{ rating: { likelihood: 0, impact: 0 } }} canEdit={false} />);
  expect(((await screen.findByRole('button', { name: /^Likelihood:/ })) as HTMLButtonElement).disabled).toBe(true);
});
