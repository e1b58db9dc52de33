/** @jest-environment ./web/test/browserEnvironment.mjs */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { followFocus } from './fallenFocus.ts';
import { isMeantForPage } from './whatIsMeant.ts';

let stop: () => void;
beforeEach(() => {
  document.body.innerHTML = '<main tabindex="-1"><a href="/on">on</a><input><button>do</button></main>';
  stop = followFocus(document);
});
afterEach(() => stop());

function fallFrom(selector: string): void {
  const element = document.querySelector<HTMLElement>(selector);
  element?.focus();
  element?.remove();
}
const meant = (deed: 'leads' | 'changes', target: Element | null = document.body): boolean => isMeantForPage(target, 'n', deed, document);

test('a key pressed at once after a link was followed leads on from the new page, and changes nothing', () => {
  fallFrom('a');
  expect([meant('leads'), meant('changes')]).toEqual([true, false]);
});

test('a key pressed where a field or a button went away under the focus is nobody’s', () => {
  fallFrom('input');
  expect([meant('leads'), meant('changes')]).toEqual([false, false]);
  fallFrom('button');
  expect([meant('leads'), meant('changes')]).toEqual([false, false]);
});

test('fields keep their letters; a link passes them on, a button only those that lead elsewhere', () => {
  const at = (selector: string) => [meant('leads', document.querySelector(selector)), meant('changes', document.querySelector(selector))];
  expect([at('input'), at('a'), at('button'), at('main')]).toEqual([[false, false], [true, true], [true, false], [true, true]]);
});
