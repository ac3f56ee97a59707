import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import os from 'node:os';
import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { totp } from '../web/server/fixtures/totp';
import { expect, test, type APIResponse, type Browser, type Page } from './test';

const maypole = path.join(import.meta.dirname, '../maypole');
const data = mkdtempSync(path.join(os.tmpdir(), 'maypole-open-'));
const PASSWORD = 'wind from the north';
let address = '';
let ownerLink = '';
let command: ChildProcess;

test.use({ ignoreHTTPSErrors: true });
test.beforeAll(async () => {
  chmodSync(data, 0o755);
  const [pem, key] = [path.join(data, 'a.pem'), path.join(data, 'a.key')];
  execFileSync(
    'openssl',
    [
      'req',
      '-x509',
      '-newkey',
      'rsa:2048',
      '-nodes',
      '-days',
      '2',
      '-subj',
      '/CN=localhost',
      '-keyout',
      key,
      '-out',
      pem,
    ],
    { stdio: 'ignore' },
  );
  command = spawn(maypole, ['start', '--open', 'localhost', '--certificate', pem, '--key', key], {
    env: { ...process.env, MAYPOLE_DATA: data },
  });
  let said = '';
  command.stdout!.on('data', (d: Buffer) => (said += d.toString()));
  command.stderr!.on('data', (d: Buffer) => (said += d.toString()));
  await expect.poll(() => said, { timeout: 180_000 }).toContain('Ctrl-C');
  address = /ready at (https:\S+)/.exec(said)![1];
  ownerLink = /once: (https:\S+)/.exec(said)![1];
});
test.afterAll(() => {
  spawnSync(maypole, ['stop'], { env: { ...process.env, MAYPOLE_DATA: data } });
  rmSync(data, { recursive: true, force: true });
});

async function makeAccount(page: Page, link: string, name: string): Promise<void> {
  await page.goto(link);
  await page.getByLabel('Name').fill(name);
  await page.getByLabel('E-mail').fill(`${name.toLowerCase()}@larkhaven.example`);
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Make my account' }).click();
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible({ timeout: 20_000 });
}
const handed = (page: Page, label: RegExp) => page.getByRole('dialog').getByLabel(label).inputValue();

test('an owner is made once, invites somebody who may look, and takes that back', async ({ page, browser }) => {
  // Nobody known is sent to sign in, and comes back to where they were going.
  await page.goto(`${address}/people`);
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect(page.url()).toContain('to=%2Fpeople');
  expect((await page.request.get(`${address}/api/pieces`)).status()).toBe(401);
  await makeAccount(page, ownerLink, 'Ines');

  await page.getByRole('link', { name: 'People, keys and what was done' }).click();
  await expect(page.getByText('ines@larkhaven.example')).toBeVisible();
  await page.getByLabel('Role: Invite by a link').selectOption('look');
  await page.getByLabel('For whom').fill('Tomas');
  await page.getByRole('button', { name: 'Invite by a link' }).click();
  const link = await handed(page, /Link for Tomas/);
  await page.getByRole('button', { name: 'Done' }).click();

  const others = await browser.newContext({ ignoreHTTPSErrors: true });
  const other = await others.newPage();
  await makeAccount(other, link, 'Tomas');
  // Who may only look has no way to make anything, and the server would not take it.
  await expect(other.getByRole('button', { name: 'New loop' })).toBeHidden();
  await expect(other.getByRole('link', { name: 'People, keys' })).toBeHidden();
  const made = await other.request.post(`${address}/api/pieces`, { data: { source: '{}' } });
  expect(made.status()).toBe(403);
  expect(((await made.json()) as { error: string }).error).toContain('yours is “Look”');
  const again = await others.newPage();
  await again.goto(link);
  await again.getByLabel('Name').fill('X');
  await again.getByLabel('E-mail').fill('x@larkhaven.example');
  await again.getByLabel('Password').fill(PASSWORD);
  await again.getByRole('button', { name: 'Make my account' }).click();
  await expect(again.getByRole('alert').filter({ hasText: 'used already' })).toBeVisible();

  await page.reload();
  await page.getByLabel('Role of Tomas').selectOption('edit');
  await expect
    .poll(async () => (await other.request.post(`${address}/api/pieces`, { data: { source: '{}' } })).status())
    .toBe(422);
  await page.getByRole('button', { name: 'Remove Tomas' }).click();
  await expect(page.getByText('tomas@larkhaven.example')).toBeHidden();
  expect((await other.request.get(`${address}/api/pieces`)).status()).toBe(401);
  await expect(page.getByRole('cell', { name: /removed somebody/ })).toBeVisible();
  await others.close();
});

/** Has two frames of a shape from a file drawn by another browser, which has a key and no session. */
async function drawnByKey(owner: Page, browser: Browser): Promise<{ files?: unknown }> {
  const json = async (answer: APIResponse) => (await answer.json()) as Record<string, string>;
  const { request } = owner;
  const made = await request.post(`${address}/api/people/keys`, { data: { name: 'Windowless', role: 'run' } });
  const { key } = await json(made);
  const vane = 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 0 0 1\nf 1 2 3 4\nf 1 2 5\n';
  const kept = await json(await request.post(`${address}/api/assets?name=vane.obj`, { data: Buffer.from(vane) }));
  const piece: Piece = {
    ...newPiece('Vane'),
    loop: { frames: 2, fps: 12 },
    format: { width: 64, height: 64 },
    outputs: [newItem(outputs.get('png'))],
    ribbons: [{ ...newRibbon('imported', 0), steps: [newStep('imported', { file: kept.fingerprint })] }],
  };
  const { id } = await json(await request.post(`${address}/api/pieces`, { data: { source: writePiece(piece) } }));
  const render = await json(await request.post(`${address}/api/renders`, { data: { piece: id, revision: 1 } }));
  const apart = await browser.newContext({ ignoreHTTPSErrors: true });
  const page = await apart.newPage();
  const fetched: number[] = [];
  page.on('response', (r) => r.url().includes(`/api/assets/${kept.fingerprint}`) && fetched.push(r.status()));
  await page.goto(`${address}/lend#${new URLSearchParams({ key, name: 'Windowless' })}`);
  await expect(page.getByTestId('lending')).toHaveText('2 frames so far.');
  expect(fetched).toContain(200);
  // The key opens files, and no page.
  expect((await apart.request.get(`${address}/api/pieces`)).status()).toBe(401);
  await apart.close();
  const now = async () => json(await request.get(`${address}/api/renders/${render.id}`));
  await expect.poll(async () => (await now()).state).toBe('done');
  return now();
}

test('a machine comes in with its key until it is withdrawn; who signs out is out', async ({
  page,
  playwright,
  browser,
}) => {
  await page.goto(address);
  await page.getByLabel('E-mail').fill('ines@larkhaven.example');
  await page.getByLabel('Password').fill('not this one at all');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'do not belong together' })).toBeVisible();
  await page.getByLabel('Password').fill(PASSWORD);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Shelf' })).toBeVisible({ timeout: 20_000 });

  await page.goto(`${address}/people`);
  await page.getByLabel('Which machine').fill('Render 1');
  await page.getByRole('button', { name: 'Make a key' }).click();
  const key = await handed(page, /Key of Render 1/);
  await page.getByRole('button', { name: 'Done' }).click();
  const machine = await playwright.request.newContext({
    ignoreHTTPSErrors: true,
    extraHTTPHeaders: { Authorization: `Bearer ${key}` },
  });
  expect((await machine.get(`${address}/api/pieces`)).status()).toBe(200);
  expect((await machine.get(`${address}/api/metrics`)).status()).toBe(200);
  expect((await machine.get(`${address}/api/people`)).status()).toBe(403);
  // A browser without a window draws by a key, without anyone being signed in, and gets the files that pieces name.
  const { files } = await drawnByKey(page, browser);
  expect(files).toEqual([expect.objectContaining({ kind: 'png', state: 'done', count: 2 })]);
  await page.goto(`${address}/people`);
  await page.getByRole('button', { name: 'Withdraw the key Render 1' }).click();
  await expect(page.getByText('Render 1', { exact: true })).toBeHidden();
  expect((await machine.get(`${address}/api/pieces`)).status()).toBe(401);
  await machine.dispose();

  await page.goto(address);
  await page.getByRole('link', { name: 'Ines', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Where you are signed in' })).toBeVisible();
  const words = page.getByRole('region', { name: 'Password' });
  await words.getByLabel('Current password').fill('not this one at all');
  await words.getByLabel('New password').fill('rain towards evening');
  await words.getByRole('button', { name: 'Change' }).click();
  await expect(words.getByRole('alert').filter({ hasText: 'not your present password' })).toBeVisible();
  await words.getByLabel('Current password').fill(PASSWORD);
  await words.getByRole('button', { name: 'Change' }).click();
  await expect(words.getByLabel('Current password')).toHaveValue('');
  await page.goto(address);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect((await page.request.get(`${address}/api/pieces`)).status()).toBe(401);
});

test('codes are asked for at signing in once a device is set up; another browser is signed out from here', async ({
  page,
  browser,
}) => {
  const NEXT = 'rain towards evening';
  const signIn = async (on: Page) => {
    await on.goto(`${address}/account`);
    await on.getByLabel('E-mail').fill('ines@larkhaven.example');
    await on.getByLabel('Password').fill(NEXT);
    await on.getByRole('button', { name: 'Sign in' }).click();
  };
  await signIn(page);
  await page.getByRole('button', { name: 'Turn on' }).click();
  await page.getByRole('dialog', { name: 'Ask for codes' }).getByLabel('Current password').fill(NEXT);
  await page.getByRole('button', { name: 'Go on' }).click();
  const setup = page.getByRole('dialog', { name: 'Set your device up' });
  const secret = (await setup.getByTestId('secret').innerText()).replace(/\s/g, '');
  await setup.getByLabel('The code it shows').fill(totp(secret));
  await setup.getByRole('button', { name: 'Turn on' }).click();
  const codes = (await handed(page, /Codes for paper/)).split(/\s+/);
  expect(codes).toHaveLength(10);
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(page.getByText('Codes are asked for.')).toBeVisible();

  const others = await browser.newContext({ ignoreHTTPSErrors: true });
  const other = await others.newPage();
  await signIn(other);
  await expect(other.getByRole('heading', { name: 'And a code' })).toBeVisible();
  await other.getByLabel('Code').fill('1');
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByRole('alert').filter({ hasText: 'This code is not right' })).toBeVisible();
  await other.getByLabel('Code').fill(codes[0]);
  await other.getByRole('button', { name: 'Sign in' }).click();
  await expect(other.getByText('(this browser)')).toBeVisible();

  await page.reload();
  await page
    .getByRole('button', { name: /Sign out there/ })
    .first()
    .click();
  await expect(page.getByRole('button', { name: /Sign out there/ })).toHaveCount(0);
  await other.reload();
  await expect(other.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await others.close();
});

/** The status of an answer; undefined where the connection was closed instead. */
function statusOf(url: string, headers: Record<string, string> = {}): Promise<number | undefined> {
  return new Promise((resolve) => {
    const ask = url.startsWith('https') ? https : http;
    ask
      .get(url, { headers, rejectUnauthorized: false, agent: false }, (response) => {
        response.resume();
        resolve(response.statusCode);
      })
      .on('error', () => resolve(undefined));
  });
}

test('what comes without TLS, or by another name, is not let in', async () => {
  expect(await statusOf(address)).toBe(307);
  expect(await statusOf(address, { Host: 'evil.example' })).toBe(403);
  expect(await statusOf(address.replace('https', 'http'))).not.toBe(200);
});
