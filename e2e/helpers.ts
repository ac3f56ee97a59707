import { execFileSync } from 'node:child_process';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { expect, type Locator, type Page } from './test';

/** Fails the test on anything the page writes to its error console. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('console', (m) => m.type() === 'error' && errors.push(m.text()));
  page.on('pageerror', (e) => errors.push(e.message));
  return errors;
}

/** Records what an element says from now on, for words that are over before anybody looks; returns how to ask for them. */
export async function wordsOf(page: Page, testId: string): Promise<() => Promise<string[]>> {
  const words = await page.evaluateHandle((id) => {
    const all: string[] = [];
    new MutationObserver(() => {
      const now = document.querySelector(`[data-testid=${id}]`)?.textContent;
      if (now && now !== all.at(-1)) all.push(now);
    }).observe(document.body, { subtree: true, childList: true, characterData: true });
    return all;
  }, testId);
  return () => words.evaluate((all) => [...all]);
}

/**
 * Waits until the picture is whole, or stands still, looking at every turn of the screen: what an expectation looks for is
 * looked at once a second after a while, and there are hundreds of these.
 */
async function pictureIs(page: Page, state: 'complete' | 'still'): Promise<void> {
  await page.waitForFunction(
    (wanted) => {
      const canvas = document.querySelector<HTMLCanvasElement>('canvas[data-testid=picture]');
      return canvas?.dataset.complete === 'true' && canvas.dataset[wanted] === 'true' && canvas.clientWidth > 0;
    },
    state,
    // An endless form under fog is marched by the processor here, two dozen times.
    { timeout: 180_000 },
  );
}

/** Waits until the picture shows a frame in full. */
export async function pictureReady(page: Page): Promise<void> {
  await pictureIs(page, 'complete');
}

/** Waits for so many turns of the screen. */
export async function turns(page: Page, count: number): Promise<void> {
  await page.evaluate(async (n) => {
    for (let i = 0; i < n; i++) await new Promise((done) => requestAnimationFrame(done));
  }, count);
}

/** The picture alone, without what lies over it, once it stands still. */
export async function stillPicture(page: Page): Promise<Buffer> {
  // What was changed a moment ago is drawn at the next turn of the screen, and the picture before it still stands until then.
  await turns(page, 2);
  const canvas = page.locator('canvas[data-testid=picture][data-complete=true][data-still=true]');
  await pictureIs(page, 'still');
  // A worker tells that it has drawn before the screen has what it drew.
  await turns(page, 4);
  await pictureIs(page, 'still');
  // By a sheet that is made of rules: the policy of the page takes no style element that a test puts in.
  await page.evaluate((rule) => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(rule);
    document.adoptedStyleSheets.push(sheet);
  }, '[data-testid=viewport] ~ *, [data-scope=toast] { visibility: hidden !important }');
  const picture = await canvas.screenshot({ caret: 'initial' });
  await page.evaluate(() => void document.adoptedStyleSheets.pop());
  return picture;
}

/** Puts a piece on the shelf through the service. */
export async function putPiece(page: Page, piece: Piece): Promise<string> {
  const made = await page.request.post('/api/pieces', { data: { source: writePiece(piece) } });
  expect(made.status()).toBe(201);
  return ((await made.json()) as { id: string }).id;
}

/** The same, and opens it. */
export async function openPiece(page: Page, piece: Piece): Promise<string> {
  const id = await putPiece(page, piece);
  await page.goto(`/piece/${id}`);
  await pictureReady(page);
  return id;
}

/** A small torus with a closed displacement, quick to draw. */
export function smallPiece(name: string, frames = 12): Piece {
  const ribbon = newRibbon('torus', 0, 'Ring');
  return {
    ...newPiece(name),
    loop: { frames, fps: 12 },
    format: { width: 160, height: 120 },
    ribbons: [
      {
        ...ribbon,
        steps: [
          newStep('torus', { ringSegments: 24, pipeSegments: 12 }),
          newStep('displace', { height: 0.2 }),
          newStep('twist', { angle: 40, axis: 'x' }),
        ],
      },
    ],
  };
}

/** Types a number into a value's field. */
export async function typeNumber(within: Page | Locator, label: string, value: number | string): Promise<void> {
  const field = within.getByRole('spinbutton', { name: label, exact: true });
  await field.focus();
  await field.press('Enter');
  const input = within.getByRole('textbox', { name: label, exact: true });
  await input.fill(String(value));
  await input.press('Enter');
}

/** The card of a step in the thread. */
export function step(page: Page, kind: string): Locator {
  return page.getByTestId(`step-${kind}`);
}

async function chooseStep(page: Page, title: string): Promise<void> {
  const field = page.getByRole('textbox', { name: 'Find a step' });
  await field.fill(title);
  await page
    .getByRole('dialog')
    .filter({ has: field })
    .getByRole('button', { name: new RegExp(`^${title}`) })
    .first()
    .click();
}

export async function addStep(page: Page, title: string): Promise<void> {
  await page.getByRole('button', { name: 'Add step' }).click();
  await chooseStep(page, title);
  // The keyboard goes to the step's first value, or back to the button where there is none; nothing is typed before that.
  await expect(page.getByRole('textbox', { name: 'Find a step' })).toHaveCount(0);
  await expect(page.locator('[data-step] :focus, [data-opens="add-step"]:focus')).toHaveCount(1);
}

/** Adds a ribbon with a form. */
export async function addRibbon(page: Page, form: string): Promise<void> {
  await page.getByRole('button', { name: 'Add ribbon' }).click();
  await chooseStep(page, form);
  await expect(page.getByRole('textbox', { name: 'Find a step' })).toHaveCount(0);
}

/** What ffprobe (Debian's ffmpeg) reads from the first video stream of a file. */
export function probe(file: string): {
  codec_name: string;
  width: number;
  height: number;
  r_frame_rate: string;
  nb_read_frames: string;
} {
  const out = execFileSync('ffprobe', [
    '-v',
    'error',
    '-count_frames',
    '-select_streams',
    'v:0',
    '-show_entries',
    'stream=codec_name,width,height,r_frame_rate,nb_read_frames',
    '-of',
    'json',
    file,
  ]);
  return JSON.parse(out.toString()).streams[0];
}

/** Grey bytes of a frame of a movie, by ffmpeg. */
export function movieFrame(file: string, frame: number): Buffer {
  return execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      file,
      '-vf',
      `select=eq(n\\,${frame})`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'gray',
      '-',
    ],
    { maxBuffer: 1 << 28 },
  );
}
