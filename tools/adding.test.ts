import { execFile } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const ROOT = path.join(import.meta.dirname, '..');

/** One of each kind of thing that is declared: its file, and the list that it is put at the end of. */
const ADDED = {
  noise: {
    file: 'noise/kinds/dew.ts',
    list: ['noise/kinds/index.ts', './dew', 'dew'],
    text: `import { gradientField } from '../gradients';
import type { NoiseKind } from '../kind';

export const dew: NoiseKind = { kind: 'dew', title: 'Dew', help: 'Round beads.', field: (seed, rate, clock, options) => gradientField(seed, rate, clock, options) };
`,
  },
  part: {
    file: 'finish/parts/frost.ts',
    list: ['finish/parts/index.ts', './frost', 'frost'],
    text: `import { number } from '../../declare/params';
import { definePart } from '../part';

export const frost = definePart({ kind: 'frost', title: 'Frost', help: 'Dulls the surface.', icon: 'M4 12h16', params: { depth: number('Depth', 30, 'How dull.', { unit: '%', min: 0, max: 100 }) }, surface: (v, before) => ({ roughness: Math.max(before.roughness, v.depth / 100) }) });
`,
  },
  light: {
    file: 'scene/lights/beacon.ts',
    list: ['scene/index.ts', './lights/beacon', 'beacon'],
    text: `import { number } from '../../declare/params';
import { defineLight } from '../kind';

export const beacon = defineLight({ kind: 'beacon', title: 'Beacon', help: 'A turning lamp.', icon: 'lamp', params: { glow: number('Glow', 100, 'Brightness.', { unit: '%', min: 0, max: 1000 }) }, at: (v) => ({ type: 'studio', strength: v.glow / 100, turn: 0 }) });
`,
  },
  effect: {
    file: 'scene/picture/veil.ts',
    list: ['scene/index.ts', './picture/veil', 'veil'],
    text: `import { number } from '../../declare/params';
import { definePictureEffect } from '../kind';

export const veil = definePictureEffect({ kind: 'veil', title: 'Veil', help: 'Softens the picture.', icon: 'wallpaper', params: { thickness: number('Thickness', 10, 'How soft.', { unit: '%', min: 0, max: 100 }) }, at: (v) => ({ type: 'vignette', amount: v.thickness / 100, reach: 0.5 }) });
`,
  },
  output: {
    file: 'output/kinds/flag.ts',
    list: ['output/index.ts', './kinds/flag', 'flag'],
    text: `import { number } from '../../declare/params';
import { defineOutput } from '../kind';

export const flag = defineOutput({ kind: 'flag', title: 'Flag', help: 'All frames on a flag', group: 'single', icon: 'images', ending: 'png', params: { width: number('Width', 8, 'How wide.', { min: 1, max: 100 }) }, sheet: () => 'solid' });
`,
  },
} as const;

/** The list that each is put at the end of, in its index file. */
const LISTS: Record<keyof typeof ADDED, [RegExp, string]> = {
  noise: [/(new Registry<NoiseKind>\('noise', \[[^\]]*?),?\s*\]/, '$1, dew]'],
  part: [/(new Registry\('part of a finish', \[[^\]]*?),?\s*\]/, '$1, frost]'],
  light: [/('light', \[[^\]]*?),?\s*\]/, '$1, beacon]'],
  effect: [/('picture effect', \[[^\]]*?),?\s*\]/, '$1, veil]'],
  output: [/('kind of output', \[[^\]]*?),?\s*\]/, '$1, flag]'],
};

/** What is asked of the altered core, in a process of its own. */
const PROBE = `
import { defaultsOf } from './core/declare/params';
import { noiseParams } from './core/noise/noise-params';
import { newItem, newPiece, newRibbon, newStep } from './core/piece/piece';
import { readPiece, writePiece } from './core/piece/read';
import { ownersOf } from './core/piece/walk';
import { finishParts } from './core/finish/parts/index';
import { outputs } from './core/output/index';
import { lights, pictureEffects, sceneLists } from './core/scene/index';
import { describeAll } from './core/reference/describe';
import { pictureAt } from './core/evaluate/picture-at';
import { proveSeam } from './core/seam/proof';

const fresh = newRibbon('box', 0);
const ribbon = { ...fresh, steps: [...fresh.steps, newStep('displace', { noise: 'dew' })], finishes: fresh.finishes.map((f) => ({ ...f, parts: [...f.parts, newItem(finishParts.get('frost'), { depth: 80 })] })) };
const plain = newPiece('Added');
const piece = {
  ...plain,
  ribbons: [ribbon],
  scene: { ...plain.scene, lights: [...plain.scene.lights, newItem(lights.get('beacon'))], picture: [newItem(pictureEffects.get('veil'))] },
  outputs: [newItem(outputs.get('flag'))],
};
const read = readPiece(writePiece(piece as never));
const moving = { ...piece, scene: { ...piece.scene, lights: [newItem(lights.get('beacon'), { glow: { motion: 'wave', shape: 'sine', low: 0, high: 10, turns: 1.5, phase: 0 } as never })] } };
const picture = pictureAt(piece as never, 0, () => 'shape');
console.log(JSON.stringify({
  read: read.ok ? true : read,
  wrong: readPiece(writePiece({ ...piece, outputs: [newItem(outputs.get('flag'), { width: 5000 })] } as never)).ok,
  panels: ownersOf(piece as never).map((o) => ({ kind: o.item.kind, params: Object.keys(o.params).length })),
  menu: { noise: noiseParams.noise.options.at(-1), part: finishParts.all.at(-1)!.title, light: sceneLists.lights.kinds.all.at(-1)!.title, effect: sceneLists.picture.kinds.all.at(-1)!.title, output: outputs.all.at(-1)!.title },
  reference: describeAll(),
  drawn: { roughness: picture.ribbons[0].surfaces[0].roughness, lights: picture.scene.lights.length, effects: picture.scene.picture },
  seam: proveSeam(moving as never).findings.map((f) => f.title),
}));
`;

let folder = '';
let told: {
  read: unknown;
  wrong: boolean;
  panels: { kind: string; params: number }[];
  menu: Record<string, unknown>;
  reference: string;
  drawn: unknown;
  seam: string[];
};

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-adding-'));
  cpSync(path.join(ROOT, 'core'), path.join(folder, 'core'), {
    recursive: true,
    filter: (from) => !/node_modules|fixtures|\.test\.ts$/.test(from),
  });
  symlinkSync(path.join(ROOT, 'node_modules'), path.join(folder, 'node_modules'));
  for (const [what, { file, list, text }] of Object.entries(ADDED)) {
    const [index, from, name] = list;
    mkdirSync(path.dirname(path.join(folder, 'core', file)), { recursive: true });
    writeFileSync(path.join(folder, 'core', file), text);
    const listed = readFileSync(path.join(folder, 'core', index), 'utf8');
    const changed = listed.replace(...LISTS[what as keyof typeof ADDED]);
    if (changed === listed) throw new Error(`core/${index} has no list that “${name}” could be put at the end of.`);
    writeFileSync(path.join(folder, 'core', index), `import { ${name} } from '${from}';\n${changed}`);
  }
  writeFileSync(path.join(folder, 'probe.ts'), PROBE);
  const { stdout } = await promisify(execFile)(
    process.execPath,
    [path.join(ROOT, 'node_modules/tsx/dist/cli.mjs'), 'probe.ts'],
    { cwd: folder, maxBuffer: 16e6 },
  ).catch((e: { stderr: string }) => {
    throw new Error(e.stderr.slice(0, 2000));
  });
  told = JSON.parse(stdout) as typeof told;
}, 60_000);

afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('a noise, a part of a finish, a light, an effect on the picture and an output, each declared in a file of its own', () => {
  it('may stand in a document, within the limits declared', () => {
    expect(told.read).toBe(true);
    expect(told.wrong).toBe(false);
  });

  it('have a panel, from their parameters', () => {
    expect(told.panels).toEqual(
      expect.arrayContaining([
        { kind: 'frost', params: 1 },
        { kind: 'beacon', params: 1 },
        { kind: 'veil', params: 1 },
        { kind: 'flag', params: 1 },
      ]),
    );
  });

  it('reach whoever draws, and the seam check', () => {
    expect(told.drawn).toEqual({ roughness: 0.8, lights: 2, effects: [{ type: 'vignette', amount: 0.1, reach: 0.5 }] });
    expect(told.seam).toEqual(['Beacon glow']);
  });

  it('are in the menus, last', () => {
    expect(told.menu).toEqual({
      noise: { value: 'dew', title: 'Dew', help: 'Round beads.' },
      part: 'Frost',
      light: 'Beacon',
      effect: 'Veil',
      output: 'Flag',
    });
  });

  it('are in the reference', () => {
    for (const words of [
      '`dew`: Round beads.',
      '### Frost (`frost`)',
      '### Beacon (`beacon`)',
      '## Scene: picture (`picture`)',
      '### Veil (`veil`)',
      '### Flag (`flag`)',
    ])
      expect(told.reference).toContain(words);
  });
});
