import { expect, test } from '@playwright/test';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PROJECT, expectAccessible, openAs, signIn } from './helpers.ts';

/** A hand in the database of the server under test. */
function inDatabase(sql: string): void {
  const data = process.env.CADERNO_E2E_DATA ?? '';
  const port = readFileSync(join(data, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[3] ?? '';
  const env = { ...process.env, PGPASSWORD: readFileSync(join(data, 'postgres-password'), 'utf8') };
  execFileSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', '-h', '127.0.0.1', '-p', port, '-U', 'caderno', '-c', sql, 'postgres'], { env });
}

/** The case that is spoilt. */
let spoilt = '';

test('what cannot be read is named in its list, on its page and in coverage, and an earlier version is put back', async ({ page }) => {
  await signIn(page, 'Inês V.');
  const made = await page.request.post('/api/v1/projects/fonte-clara/artefacts', {
    data: { kind: 'case', content: { title: 'Spoilt by hand', kind: 'procedure', execution: 'byHand', objective: 'first', areas: '', ideas: '', preconditions: '', steps: [], parameters: [], rows: [], data: null, runs: { kind: 'all' }, covers: [], module: 'Spoilt', priority: 'low', tags: [], estimate: null, owner: '', defects: [], dependsOn: [], origin: null, attachments: [], own: {} } },
  });
  spoilt = ((await made.json()) as { summary: { id: string } }).summary.id;
  await page.goto(`${PROJECT}/cases/${spoilt}`);
  await page.getByLabel(`Title of ${spoilt}`).fill('Spoilt by hand, twice');
  await page.keyboard.press('Control+s');
  await expect(page.getByText('v2 · saved')).toBeVisible();
  inDatabase(`UPDATE caderno.artefact_version v SET content = '{"title": ["no"]}' FROM caderno.artefact a WHERE a.id = v.artefact_id AND v.version = 2 AND a.title = 'Spoilt by hand, twice'`);

  await page.goto(`${PROJECT}/cases/${spoilt}`);
  await expect(page.getByRole('alert')).toContainText('What is stored as version 2 cannot be read');
  await expect(page.getByRole('link', { name: new RegExp(`${spoilt}.*cannot be read`) })).toBeVisible();
  await expectAccessible(page);
  await page.goto(`${PROJECT}/coverage`);
  await expect(page.getByRole('status').filter({ hasText: 'cannot be read' })).toContainText(spoilt);
  await page.getByRole('link', { name: spoilt, exact: true }).click();
  await page.getByRole('button', { name: 'Put v1 back' }).click();
  await expect(page.getByLabel(`Title of ${spoilt}`)).toHaveValue('Spoilt by hand');
  await expect(page.getByText('v3 · saved')).toBeVisible();
});

test('readers see what cannot be read, and are offered nothing to put back', async ({ browser }) => {
  inDatabase(`UPDATE caderno.artefact_version v SET content = '7' FROM caderno.artefact a WHERE a.id = v.artefact_id AND v.version = a.head AND a.title = 'Spoilt by hand'`);
  const page = await openAs(browser, 'Olga S.', '/coverage');
  await page.goto(`${PROJECT}/cases/${spoilt}`);
  await expect(page.getByRole('alert')).toContainText('Somebody who may edit can put an earlier version back.');
  await expect(page.getByRole('button', { name: /Put v/ })).toHaveCount(0);
  inDatabase(`UPDATE caderno.artefact SET deleted_at = now() WHERE title = 'Spoilt by hand'`);
});

test('a save waits while the disk is full, is told once, and goes through when there is room', async ({ page }) => {
  await signIn(page, 'Rui M.', '/cases/C-2');
  let full = true;
  // A full disk takes no drafts either.
  await page.route(/\/artefacts\/C-2(?:\/draft)?$/, (route) => (full && route.request().method() === 'PUT' ? route.fulfill({ status: 507, contentType: 'application/problem+json', body: JSON.stringify({ code: 'disk_full' }) }) : route.continue()));
  const title = page.getByLabel('Title of C-2');
  const before = await title.inputValue();
  await title.fill(`${before}, once more`);
  await page.keyboard.press('Control+s');
  await expect(page.getByText('The disk of the server is full.')).toHaveCount(1);
  await expect(page.getByText('kept in this browser, sent when the server is back')).toBeVisible();
  full = false;
  await expect(page.getByText(/v\d+ · saved/)).toBeVisible({ timeout: 20_000 });
  await title.fill(before);
  await page.keyboard.press('Control+s');
  await expect(page.getByText(/v\d+ · saved/)).toBeVisible();
});

test('an event stream that is refused for a moment is opened again; a session that has ended asks to sign in', async ({ page, context }) => {
  let refuse = true;
  // What the shared worker asks for cannot be answered in its place: this browser has none, and the page a stream of its own.
  await page.addInitScript(() => Reflect.deleteProperty(window, 'SharedWorker'));
  await page.route('**/events', (route) => (refuse ? route.fulfill({ status: 429, contentType: 'application/problem+json', body: '{"code":"too_many_streams","limit":20}' }) : route.continue()));
  await signIn(page, 'Teresa L.', '/coverage');
  await expect(page.getByText('The server does not answer just now.')).toBeVisible();
  refuse = false;
  await expect(page.getByText('The server does not answer just now.')).toBeHidden({ timeout: 15_000 });
  const other = await context.newPage();
  await other.goto(`${PROJECT}/account`);
  await other.getByRole('button', { name: 'Teresa L.: account' }).click();
  await other.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Look around as one of them' })).toBeVisible({ timeout: 15_000 });
});
