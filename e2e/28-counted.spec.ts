import { readFileSync, writeFileSync } from 'node:fs';
import { newPiece } from '@maypole/core/piece/piece';
import { PNG } from 'pngjs';
import { expect, test, type Page } from './test';
import { openPiece, stillPicture, typeNumber, watchErrors } from './helpers';

/**
 * Whole pieces of practice, from an empty piece to a closed loop with its look, by lines of the command field. A press of
 * a key and a line that is typed are an action each, as a click and a typed value are; what the lines say is counted,
 * too: every thing that is added or switched and every number, colour and choice.
 *
 * `most` is a third of the actions of the same piece where every value has a field of its own (counted in practice).
 */
const PIECES: readonly { readonly name: string; readonly most: number; readonly lines: readonly string[] }[] = [
  {
    name: 'Rain row, rocking cylinders',
    most: 15,
    lines: [
      '6 s at 30, cylinder 0.33 height 4 rounding 0.05, colour #15161a roughness 40, coat 100 roughness 1',
      'line 30 every z 0.75, vary turn to x -45 to 45 twice, camera focal length 300 distance 130, background #cdd4d4',
    ],
  },
  {
    name: 'Fog net with a rim of light',
    most: 24,
    lines: [
      '10 s at 30, sphere, displace water, struts 2.5mm joints 12.5mm, glow 2 #ffb35c, see-through adds light',
      'background #05070c, studio off, ball light at 2 3 2 #9fdcff, lit air, bloom 95%',
    ],
  },
  {
    name: 'Inside a twisted vane',
    most: 32,
    lines: [
      '10 s at 24, torus 6 4.5 100 by 70, colour #2a2c30, twist 240 pivot turn z 0 to 360, struts 2.5mm joints 0 keep',
      'rods glow 10 #1e7bff, camera focal length 25 elevation 0 azimuth 0 distance 6, backdrop black, studio off, bloom 20%, look very strong',
    ],
  },
  {
    name: 'Snow over a knot',
    most: 63,
    lines: [
      '5 s at 30, geodesic 0.01 3, colour #efebe2 roughness 96',
      'stream disc 0.75 at 0 2 0 count 120 every 15 life 2 speed 1.5 size 0.8 direction y -1 swirling tumbling',
      'cord knot size 0.35 depth 0.15 thickness 0.09, colour #26272b roughness 62',
      'sky, backdrop black, camera distance 5 elevation 0 azimuth 0 looks at 0 1 0',
    ],
  },
];

const DOC = 'docs/actions.md';
const row = (name: string, actions: number, said: number, most: number) =>
  `| ${name} | ${actions} | ${said} | ${most} |`;

/** Types a line as hands do, reads what was understood, and does it: three actions. */
async function say(page: Page, line: string): Promise<string> {
  await page.keyboard.press('Control+k');
  const field = page.getByRole('combobox', { name: 'What do you want to do?' });
  await expect(field).toBeFocused();
  await field.fill(line);
  const first = page.getByRole('option').first();
  await expect(first).toContainText('one undo takes it back');
  const words = (await first.innerText()).split('\n').find((text) => /(Adds|Sets|Switches) /.test(text))!;
  await page.keyboard.press('Enter');
  await expect(field).toHaveCount(0);
  return words;
}

/** Things and values in what a line did: "Adds Coat of Row: coat 100%, roughness 1%" are three. */
function countOf(words: string): number {
  return words.split(/\. (?=Adds|Sets|Switches)/).reduce((sum, sentence) => {
    const [doing, values] = sentence.split(/: (.*)/);
    return sum + (doing.startsWith('Sets') ? 0 : 1) + (values?.split(', ').length ?? 0);
  }, 0);
}

/** Standard deviation of the brightness of a picture, 0…255. */
function contrast(png: Buffer): number {
  const { data } = PNG.sync.read(png);
  const grey = Array.from({ length: data.length / 4 }, (_, i) => (data[4 * i] + data[4 * i + 1] + data[4 * i + 2]) / 3);
  const mean = grey.reduce((a, b) => a + b) / grey.length;
  return Math.sqrt(grey.reduce((sum, x) => sum + (x - mean) ** 2, 0) / grey.length);
}

for (const { name, most, lines } of PIECES)
  test(`${name}: a piece in a third of the actions`, async ({ page }) => {
    const errors = watchErrors(page);
    await openPiece(page, { ...newPiece(name), format: { width: 320, height: 320 } });
    let said = 0;
    for (const line of lines) said += countOf(await say(page, line));
    const actions = 3 * lines.length;
    expect(actions).toBeLessThanOrEqual(most);
    // The table of the docs is made by this test.
    const doc = readFileSync(DOC, 'utf8');
    const now = row(name, actions, said, most);
    if (process.env.MAYPOLE_WRITE_DOCS)
      writeFileSync(
        DOC,
        doc.includes(`| ${name} |`) ? doc.replace(new RegExp(`\\| ${name} \\|.*`), now) : `${doc}${now}\n`,
      );
    else expect(doc).toContain(now);

    await expect(page.getByTestId('seam-chip')).toHaveText('Seam closed');
    const round = page.getByRole('region', { name: 'Round' });
    const first = await stillPicture(page);
    // Something is seen, it moves, and it comes round to the pixel.
    expect(contrast(first)).toBeGreaterThan(8);
    const frames = Number(
      await page
        .getByTestId('loop-field')
        .innerText()
        .then((text) => /(\d+) frames/.exec(text)![1]),
    );
    await typeNumber(round, 'Frame', Math.round(frames / 3));
    expect((await stillPicture(page)).equals(first)).toBe(false);
    await typeNumber(round, 'Frame', frames);
    expect((await stillPicture(page)).equals(first)).toBe(true);
    expect(errors).toEqual([]);
  });
