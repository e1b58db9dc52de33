/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Answer } from './Answer.tsx';
import { TickIn } from './Tick.tsx';

afterEach(cleanup);

function Some() {
  const [chosen, setChosen] = useState<readonly string[]>(['b']);
  const [how, setHow] = useState('quick');
  return (
    <>
      {['a', 'b', 'c'].map((item) => (
        <TickIn key={item} item={item} of={chosen} onChange={setChosen} disabled={item === 'c'}>
          take {item}
        </TickIn>
      ))}
      {['quick', 'slow'].map((answer) => (
        <Answer key={answer} name="how" checked={how === answer} onPick={() => setHow(answer)}>
          {answer}
        </Answer>
      ))}
      <output>{`${chosen.join()} ${how}`}</output>
    </>
  );
}
const now = (): string => screen.getByRole('status').textContent ?? '';

test('words press their box: what is ticked comes behind the others, what is not goes; of answers there is one', () => {
  render(<Some />);
  fireEvent.click(screen.getByText('take a'));
  expect(now()).toBe('b,a quick');
  fireEvent.click(screen.getByRole('checkbox', { name: 'take b' }));
  fireEvent.click(screen.getByText('slow'));
  expect(now()).toBe('a slow');
  expect(screen.getByRole<HTMLInputElement>('checkbox', { name: 'take c' }).disabled).toBe(true);
  expect(screen.getAllByRole<HTMLInputElement>('radio').map((r) => r.checked)).toEqual([false, true]);
});
