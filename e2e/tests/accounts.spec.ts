import { expect, test, type Page } from '@playwright/test';
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { UNASKED, expectAccessible } from './helpers.ts';

const PASSWORD = 'meters under the bridge';

let child: ChildProcess;
let origin: string;
let word: string;
let mails: string;

/** A server of its own that nobody has an account on. */
test.beforeAll(async () => {
  const port = 11_000 + Math.floor(Math.random() * 8_000);
  mails = `http://127.0.0.1:${port + 2}/mails`;
  child = spawn(process.execPath, ['../scripts/start.mjs', '--empty'], { env: { ...process.env, PORT: String(port), MAIL_PORT: String(port + 1), MAIL_PAGE_PORT: String(port + 2), CADERNO_DATA: mkdtempSync(join(tmpdir(), 'caderno-accounts-')) }, stdio: ['ignore', 'pipe', 'inherit'] });
  let printed = '';
  child.stdout?.on('data', (chunk) => (printed += String(chunk)));
  // The word is printed before the server listens, so only the line of its address says that both are there.
  await expect.poll(() => /Caderno is at \S+\n/.test(printed), { timeout: 60_000 }).toBe(true);
  origin = /Caderno is at (\S+)/.exec(printed)?.[1] ?? '';
  word = /this word: (\S+)/.exec(printed)?.[1] ?? '';
});
test.afterAll(async () => {
  const ended = new Promise((resolve) => child.once('exit', resolve));
  child.kill('SIGTERM');
  await ended;
});

const toastGone = (page: Page) => page.getByRole('button', { name: 'Close toast' }).first().click().catch(() => undefined);

test('from an empty server to a colleague with a new password, by keyboard', async ({ page, browser }) => {
  await page.goto(origin);
  await expectAccessible(page);
  await page.getByLabel('Word from the start').fill('abcd-abcd-abcd');
  for (const text of ['Nuno A.', 'nuno@water.example', 'password123']) {
    await page.keyboard.press('Tab');
    await page.keyboard.type(text);
  }
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('not the word that Caderno printed');
  await page.getByLabel('Word from the start').fill(word);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('among the first that others would try');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Make a project' })).toBeVisible();
  await page.getByLabel('Name').fill('Water');
  await page.getByLabel('Key').fill('water');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();

  await page.goto(`${origin}/water/people`);
  await page.getByText('Or make the account yourself').click();
  await page.getByLabel('Name').fill('Inês V.');
  await page.getByLabel('E-mail address').last().fill('ines@water.example');
  await page.getByLabel('First password').fill('valves and weirs 7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Inês V\./ })).toBeVisible();
  await page.getByLabel('Role of Inês V.').selectOption('lead');
  await expect(page.getByRole('list', { name: 'Journal of people' }).getByText('analyst → lead')).toBeVisible();
  await expectAccessible(page);

  await page.goto(`${origin}/water/server`);
  await page.getByRole('button', { name: 'Link for a new password of Inês V.' }).click();
  const link = await page.getByLabel('The link for Inês V.').inputValue();
  await expectAccessible(page);
  await toastGone(page);

  const other = await (await browser.newContext()).newPage();
  await other.goto(link);
  await other.getByLabel('New password').fill('above the old valley');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await other.goto(`${origin}/water/account`);
  await expect(other.getByRole('list', { name: 'Where you are signed in' }).getByText('here')).toBeVisible();
  await expectAccessible(other);
  // Nobody passes for another; what one is called stands everywhere at once.
  const called = async (name: string): Promise<void> => {
    await other.getByLabel('Your name').fill(name);
    await other.keyboard.press('Enter');
  };
  await called('nuno a.');
  await expect(other.getByText('Somebody in the project is called nuno a. already')).toBeVisible();
  await called('Inês Vaz');
  await expect(other.getByRole('heading', { name: 'Inês Vaz', level: 1 })).toBeVisible();
  await expect(other.getByRole('button', { name: 'Inês Vaz: account' })).toBeVisible();
  await called('Inês V.');
  await expect(other.getByRole('heading', { name: 'Inês V.', level: 1 })).toBeVisible();
  const again = await (await browser.newContext()).newPage();
  await again.goto(link);
  await again.getByLabel('New password').fill('above the old valley');
  await again.keyboard.press('Enter');
  await expect(again.getByRole('alert')).toContainText('has been used or has ended');

  // Deactivated, she is asked to sign in on the page she has open.
  await page.getByRole('button', { name: 'Deactivate Inês V.' }).click();
  await expect(page.getByText('not active')).toBeVisible();
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible(UNASKED);
});

test('somebody who has an account already joins a second project; leaving asks first', async ({ page }) => {
  await page.goto(origin);
  await page.getByLabel('E-mail address').fill('nuno@water.example');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.goto(`${origin}/water/server`);
  await page.getByRole('button', { name: 'Bring back Inês V.' }).click();
  await page.goto(`${origin}/new-project`);
  await page.getByLabel('Name').fill('Tariffs');
  await page.getByLabel('Key').fill('tariffs');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.goto(`${origin}/tariffs/people`);
  await page.getByText('Or make the account yourself').click();
  await page.getByLabel('Name').fill('Inês');
  await page.getByLabel('E-mail address').last().fill('ines@water.example');
  await page.getByLabel('First password').fill('valves and weirs 7');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Add it as analyst' }).click();
  await expect(page.getByRole('row', { name: /Inês V\./ })).toBeVisible();
  await page.getByRole('button', { name: 'Remove Inês V. from the project …' }).click();
  await page.getByRole('button', { name: 'keep' }).click();
  await page.getByRole('button', { name: 'Remove Inês V. from the project …' }).click();
  await page.getByRole('button', { name: 'remove Inês V.' }).click();
  await expect(page.getByRole('row', { name: /Inês V\./ })).toBeHidden();
});

/** The newest mail to somebody, once it is there, and the link in it. */
async function mailTo(address: string, subject: RegExp): Promise<string> {
  let link = '';
  await expect(async () => {
    const taken = (await (await fetch(mails)).json()) as { to: string[]; subject: string; text: string }[];
    link = /https?:\/\/\S+/.exec(taken.find((m) => m.to.includes(address) && subject.test(m.subject))?.text ?? '')?.[0] ?? '';
    expect(link).not.toBe('');
  }).toPass({ timeout: 30_000 });
  return link;
}

test('a colleague is invited by mail, forgets the password, and takes another address, all by links in mails', async ({ page, browser }) => {
  await page.goto(origin);
  await page.getByLabel('E-mail address').fill('nuno@water.example');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.goto(`${origin}/water/people`);
  await page.getByLabel('E-mail address').first().fill('olga@water.example');
  await page.keyboard.press('Enter');
  const invited = page.getByRole('list', { name: 'Invited, not here yet' });
  await expect(invited).toContainText('The mail was sent.');
  await expectAccessible(page);

  const other = await (await browser.newContext()).newPage();
  await other.goto(await mailTo('olga@water.example', /invites you to Water/));
  await expect(other.getByRole('heading', { name: 'Welcome to Water' })).toBeVisible();
  await expectAccessible(other);
  await other.getByLabel('Your name').fill('Olga S.');
  await other.keyboard.press('Tab');
  await other.keyboard.type('over the third bridge');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('row', { name: /Olga S\./ })).toBeVisible();
  await expect(invited).toBeHidden();

  await other.goto(`${origin}/water/account`);
  await other.getByLabel('New e-mail address').fill('olga.s@water.example');
  await other.getByLabel('Your password').fill('over the third bridge');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('status').filter({ hasText: 'A link is on its way to olga.s@water.example' })).toBeVisible();
  await other.goto(await mailTo('olga.s@water.example', /new e-mail address/));
  await other.getByRole('button', { name: 'Take it' }).click();
  await expect(other.getByText('It is yours now.')).toBeVisible();

  const away = await (await browser.newContext()).newPage();
  await away.goto(origin);
  await away.getByRole('button', { name: 'Forgotten your password?' }).click();
  await away.keyboard.type('olga.s@water.example');
  await away.keyboard.press('Enter');
  await expect(away.getByRole('status')).toContainText('If there is an account with olga.s@water.example');
  await expectAccessible(away);
  await away.goto(await mailTo('olga.s@water.example', /new password/));
  await away.getByLabel('New password').fill('under the fourth bridge');
  await away.keyboard.press('Enter');
  await expect(away.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
});

test('a secret constant is typed, kept, and shown to a lead who asks, which the journal tells', async ({ page }) => {
  await page.goto(origin);
  await page.getByLabel('E-mail address').fill('nuno@water.example');
  await page.getByLabel('Password').fill(PASSWORD);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('navigation', { name: 'Chapters' })).toBeVisible();
  await page.goto(`${origin}/water/settings`);
  await page.getByRole('button', { name: 'add a constant' }).click();
  await page.getByLabel('Name of the constant constant 1').fill('gate code');
  await page.getByLabel('gate code is secret').check();
  await page.getByLabel('Value of gate code', { exact: true }).fill('fc-91-x');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Show the value of gate code; the journal tells it' })).toBeVisible();
  await expect(page.getByLabel('Value of gate code', { exact: true })).toHaveValue('');
  await page.getByRole('button', { name: 'Show the value of gate code; the journal tells it' }).click();
  await expect(page.getByLabel('Value of gate code', { exact: true })).toHaveValue('fc-91-x');
  await page.goto(`${origin}/water/people`);
  await expect(page.getByText('Nuno A. looked at the secret constant ‘gate code’ in Water.')).toBeVisible();
});
