/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { DEFAULT_SETTINGS, type Agreement } from '@caderno/contract';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { AgreementEditor } from './AgreementEditor.tsx';

afterEach(cleanup);

function editor(begun: Partial<Agreement>, canEdit = true) {
  const put: Agreement[] = [];
  function Kept() {
    const [agreement, setAgreement] = useState<Agreement>({ ...DEFAULT_SETTINGS.agreement, ...begun });
    return <AgreementEditor agreement={agreement} canEdit={canEdit} onChange={(next) => (put.push(next), setAgreement(next))} />;
  }
  render(<Kept />);
  return put;
}

test('how many, who, and whether authors count and agreement is set by hand; a number of one’s own stays offered', async () => {
  const put = editor({ needed: 7 });
  fireEvent.click(screen.getByRole('button', { name: 'How many must agree: 7 must agree' }));
  expect((await screen.findAllByRole('option')).map((o) => o.textContent)).toEqual(['one must agree', ...[2, 3, 4, 5, 7].map((n) => `${n} must agree`), 'all who are asked must agree']);
  fireEvent.click(screen.getByRole('option', { name: 'all who are asked must agree' }));
  fireEvent.click(screen.getByRole('button', { name: /^Who may agree/ }));
  fireEvent.click(await screen.findByRole('option', { name: 'leads' }));
  fireEvent.click(screen.getByRole('checkbox', { name: /wrote themselves/ }));
  fireEvent.click(screen.getByRole('checkbox', { name: /without a review/ }));
  expect(put.at(-1)).toEqual({ needed: 'all', role: 'lead', authors: true, byHand: false });
});

test('who does not lead reads it only', () => {
  editor({}, false);
  expect(screen.getAllByRole<HTMLInputElement>('checkbox').map((c) => c.disabled)).toEqual([true, true]);
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /^How many/ }).disabled).toBe(true);
});
