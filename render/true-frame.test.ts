import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { sceneLists } from '@maypole/core/scene/index';
import { afterAll, describe, expect, it } from 'vitest';
import { sha256 } from './frame/keep';
import { TraceCrew } from './frame/trace-crew';
import { sheetsOf, trueFrame, type TrueFrameOrder } from './frame/true-frame';
import { frameFingerprints } from './frame/fingerprint';
import { decodePng } from './files/png';

const folder = mkdtempSync(path.join(os.tmpdir(), 'maypole-frame-'));
const crew = new TraceCrew(2);
afterAll(async () => {
  await crew.close();
  rmSync(folder, { recursive: true, force: true });
});

const ORDER: TrueFrameOrder = {
  width: 64,
  height: 64,
  samples: 4,
  error: 0,
  denoise: false,
  detail: 'final',
  passes: true,
};

/** A ball of radius 1 at the origin, seen from 6 m by a camera that looks straight at it, and moves to the right. */
function piece(): Piece {
  const camera = newItem(sceneLists.cameras.kinds.get('orbit'), {
    azimuth: 0,
    elevation: 0,
    distance: 6,
    lens: 'parallel',
    span: 4,
    target: [0, 0, 0],
  });
  const shift = [{ motion: 'wave', shape: 'saw', low: 0, high: 10, turns: 1, phase: 0 } as never, 0, 0];
  const ball = {
    ...newRibbon('sphere', 0, 'Ball'),
    steps: [
      newStep('sphere', { radius: 1, meridians: 96, parallels: 48 }),
      newStep('place', { shift: shift as never }),
    ],
  };
  return {
    ...newPiece('Ball'),
    loop: { frames: 40, fps: 25 },
    format: { width: 64, height: 64 },
    scene: { ...newPiece().scene, cameras: [camera] },
    ribbons: [ball],
  };
}

const at = (frame: number, order = ORDER) => trueFrame(crew, piece(), frame, order, new MeshCache());

const all = async (sheets: ReturnType<typeof sheetsOf>) => {
  const out = new Map<string, Uint8Array>();
  for await (const [name, { bytes }] of sheets) out.set(name, bytes);
  return out;
};

describe('a frame in true light', () => {
  it('is the same bytes whoever makes it, and frame N those of frame 0', async () => {
    const one = await all(sheetsOf(await at(0), ['solid', 'half-passes']));
    const single = new TraceCrew(1);
    const two = await all(
      sheetsOf(await trueFrame(single, piece(), 40, ORDER, new MeshCache()), ['solid', 'half-passes']),
    );
    await single.close();
    // What moves on to the next frame is N + 1, which is 1 but for the last bits of where it is told.
    expect(sha256(two.get('solid')!)).toBe(sha256(one.get('solid')!));
    expect(two.get('half-passes')!.length).toBeGreaterThan(1000);
  });
  it('has a picture of 16 bits, and one without its backdrop', async () => {
    const sheets = await all(sheetsOf(await at(0), ['solid', 'clear']));
    const [solid, clear] = ['solid', 'clear'].map((n) => decodePng(sheets.get(n as 'solid')!));
    expect(solid.data).toBeInstanceOf(Uint16Array);
    expect([solid.data[3], clear.data[3]]).toEqual([65_535, 0]);
    const middle = 4 * (32 * 64 + 32) + 3;
    expect(clear.data[middle]).toBe(65_535);
  });
  it('has passes that OpenImageIO reads, by type, and that are where geometry says', async () => {
    const frame = await at(0);
    const file = path.join(folder, 'passes.exr');
    writeFileSync(file, (await all(sheetsOf(frame, ['half-passes']))).get('half-passes')!);
    const types = execFileSync('/usr/bin/exrheader', [file]).toString();
    for (const name of ['R', 'A', 'normal.X', 'mask_Ball.A'])
      expect(types).toContain(`    ${name}, 16-bit floating-point, sampling 1 1`);
    for (const name of ['depth.Z', 'distance.Z', 'position.X', 'motion.Y'])
      expect(types).toContain(`    ${name}, 32-bit floating-point, sampling 1 1`);
    expect(types).toMatch(/compression \(type compression\): zip/);
    expect(types).toMatch(/exposure \(type float\): [\d.]+/);
    expect(types).toContain('Linear light of BT.709 primaries as it was before exposure');
    const three = path.join(folder, 'three.exr');
    execFileSync('/usr/bin/oiiotool', [file, '--ch', 'depth.Z,motion.X,mask_Ball.A', '-d', 'float', '-o', three]);
    const dump = execFileSync('/usr/bin/oiiotool', ['--dumpdata', three], { maxBuffer: 1e8 }).toString();
    const values = new Map(
      [...dump.matchAll(/Pixel \((\d+), (\d+)\): (.*)/g)].map((m) => [
        `${m[1]},${m[2]}`,
        m[3].trim().split(/\s+/).map(Number),
      ]),
    );
    // In the order of the alphabet.
    const pixel = (x: number, y: number) => values.get(`${x},${y}`)!;
    // A sphere of radius 1 from 6 m along parallel rays: depth 6 − √(1 − r²).
    for (const [x, y] of [
      [32, 32],
      [40, 36],
      [26, 30],
    ]) {
      const [u, v] = [((x + 0.5) / 64 - 0.5) * 4, ((y + 0.5) / 64 - 0.5) * 4];
      expect(pixel(x, y)[0]).toBeCloseTo(6 - Math.sqrt(1 - u * u - v * v), 1);
    }
    // A quarter of a metre a frame on 4 m that are 64 pixels: 4 to the right.
    expect(pixel(32, 32)[2]).toBeCloseTo(4, 2);
    let covered = 0;
    for (let y = 0; y < 64; y++) for (let x = 0; x < 64; x++) covered += pixel(x, y)[1];
    // π square metres of 16.
    expect(covered / (64 * 64)).toBeCloseTo(Math.PI / 16, 2);
  });
  it('that is not wanted any more is let go of at once, and the threads go on afterwards', async () => {
    const long = at(0, { ...ORDER, samples: 20_000 });
    const refused = expect(long).rejects.toThrow('has ended');
    await new Promise((resolve) => setTimeout(resolve, 300));
    await crew.close();
    await refused;
    expect((await at(0)).samples).toBeCloseTo(4, 9);
  });
});

describe('fingerprints of frames', () => {
  const order = { light: 'true', width: 8, height: 8, detail: 'final', samples: 4, error: 0, denoise: false } as const;
  const [own] = frameFingerprints(piece(), [3], order);
  it('are the same for what makes no difference to the picture', () => {
    const p = piece();
    const other = {
      ...p,
      name: 'Other',
      outputs: [{ id: 'x', kind: 'png', on: true, values: {} }],
      render: { ...p.render, values: { range: 'part' } },
    };
    expect(frameFingerprints(JSON.parse(JSON.stringify(other)) as Piece, [3], order)).toHaveLength(1);
    expect(frameFingerprints({ ...p, name: 'Other', outputs: [] }, [3], order)[0].length).toBe(own.length);
    const twice = piece();
    const fixed = { ...twice, name: 'Other' };
    expect(frameFingerprints(fixed, [3], order)).toEqual(
      frameFingerprints({ ...fixed, name: 'Third', outputs: other.outputs }, [3], order),
    );
  });
  it('are others for what does', () => {
    const p = piece();
    const all = [
      frameFingerprints(p, [3], order)[0],
      frameFingerprints(p, [4], order)[0],
      frameFingerprints(p, [3], { ...order, samples: 5 })[0],
      frameFingerprints({ ...p, format: { width: 9, height: 8 } }, [3], order)[0],
      frameFingerprints({ ...p, ribbons: [] }, [3], order)[0],
    ];
    expect(new Set(all).size).toBe(all.length);
  });
});
