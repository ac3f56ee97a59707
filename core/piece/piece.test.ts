import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import type { MotionDoc } from '../time/motion';
import { addressKey, numbersOf, setValue } from './addresses';
import { newPiece, newRibbon, newStep, PIECE_VERSION, type Piece } from './piece';
import { readBundle } from './bundle';
import { formatPath, readPiece, readPieceValue, writePiece } from './read';

const wave: MotionDoc = { motion: 'wave', shape: 'sine', width: 50, low: 0, high: 90, turns: 1, phase: 0, rest: 0 };

function sample(): Piece {
  const ribbon = newRibbon('torus', 0, 'Ring');
  return {
    ...newPiece('Sample'),
    ribbons: [{ ...ribbon, steps: [...ribbon.steps, newStep('displace'), newStep('twist', { angle: wave })] }],
  };
}

/** The sample as plain JSON, changed at will. */
function broken(change: (doc: ReturnType<typeof JSON.parse>) => void) {
  const doc = JSON.parse(writePiece(sample()));
  change(doc);
  return readPieceValue(doc);
}

describe('reading a piece', () => {
  it('takes one with a mark of the byte order before it, alone or as a parcel', () => {
    const text = writePiece(sample());
    expect(readPiece(`\ufeff${text}`)).toEqual(readPiece(text));
    expect(readBundle(`\ufeff${JSON.stringify({ maypole: 'parcel', piece: text, assets: {} })}`).source).toBe(text);
  });
  it('gives back what was written', () => {
    const piece = sample();
    const read = readPiece(writePiece(piece));
    expect(read).toEqual({ ok: true, piece });
  });
  it('reads every demo piece, and writes it again as it was', () => {
    const folder = path.join(import.meta.dirname, '../../demo');
    const files = readdirSync(folder).filter((f) => f.endsWith('.json'));
    expect(files.length).toBeGreaterThanOrEqual(3);
    for (const file of files) {
      const text = readFileSync(path.join(folder, file), 'utf8');
      const read = readPiece(text);
      if (!read.ok) throw new Error(`${file}: ${read.message}`);
      expect(text.startsWith(`{\n  "maypole": "piece",\n  "version": ${PIECE_VERSION},`)).toBe(true);
      expect(writePiece(read.piece)).toBe(text);
    }
  });
  it('fills in values a document leaves out', () => {
    const read = broken((d) => {
      delete d.ribbons[0].steps[1].values.seed;
      delete d.scene.lights[0].values.strength;
    });
    expect(read.ok && read.piece.ribbons[0].steps[1].values.seed).toBe(0);
    expect(read.ok && read.piece.scene.lights[0].values.strength).toBe(100);
  });
  it('fills in settings a motion leaves out, but not its low and high', () => {
    const read = broken((d) => (d.ribbons[0].steps[2].values.angle = { motion: 'wave', low: 1, high: 2 }));
    expect(read.ok && read.piece.ribbons[0].steps[2].values.angle).toEqual({
      motion: 'wave',
      shape: 'sine',
      width: 50,
      low: 1,
      high: 2,
      turns: 1,
      phase: 0,
      rest: 0,
    });
    const bare = broken((d) => (d.ribbons[0].steps[2].values.angle = { motion: 'wave', low: 1 }));
    expect(!bare.ok && bare.message).toContain(
      'ribbons[0].steps[2].values.angle.high: Nothing is not a number; High of Angle wants one',
    );
  });

  it.each<[string, (d: ReturnType<typeof JSON.parse>) => void, string, RegExp]>([
    [
      'a number above its range',
      (d) => (d.ribbons[0].steps[0].values.ringRadius = 5000),
      'ribbons[0].steps[0].values.ringRadius',
      /5000 is above the largest Ring radius, 1000/,
    ],
    [
      'a number below its range',
      (d) => (d.ribbons[0].finishes[0].parts[0].values.roughness = -3),
      'ribbons[0].finishes[0].parts[0].values.roughness',
      /-3 is below the smallest Roughness, 0/,
    ],
    [
      'a broken count',
      (d) => (d.ribbons[0].steps[0].values.ringSegments = 12.5),
      'ribbons[0].steps[0].values.ringSegments',
      /12\.5 is not whole; .* such as 1[23]/,
    ],
    [
      'text for a number',
      (d) => (d.ribbons[0].steps[1].values.height = 'tall'),
      'ribbons[0].steps[1].values.height',
      /"tall" is not a number/,
    ],
    [
      'an unknown value',
      (d) => (d.ribbons[0].steps[0].values.wobble = 1),
      'ribbons[0].steps[0].values.wobble',
      /no value “wobble”/,
    ],
    [
      'an unknown step',
      (d) => (d.ribbons[0].steps[1].kind = 'wobble'),
      'ribbons[0].steps[1].kind',
      /no step “wobble”; use one of torus/,
    ],
    [
      'an unknown motion',
      (d) => (d.ribbons[0].steps[2].values.angle.motion = 'wobble'),
      'ribbons[0].steps[2].values.angle.motion',
      /is not a motion; use one of keys, wave, wander, stairs, formula, follow/,
    ],
    [
      'a motion that leaves the range',
      (d) => (d.ribbons[0].steps[2].values.angle.high = 1e9),
      'ribbons[0].steps[2].values.angle.high',
      /above the largest High of Angle/,
    ],
    [
      'a setting a motion has not',
      (d) => (d.ribbons[0].steps[2].values.angle.wobble = 1),
      'ribbons[0].steps[2].values.angle.wobble',
      /no setting “wobble”/,
    ],
    [
      'an unknown noise',
      (d) => (d.ribbons[0].steps[1].values.noise = 'fluff'),
      'ribbons[0].steps[1].values.noise',
      /use one of gradient, simplex, value, cellular/,
    ],
    [
      'a vector of two',
      (d) => (d.ribbons[0].steps[1].values.stretch = [1, 2]),
      'ribbons[0].steps[1].values.stretch',
      /three numbers/,
    ],
    [
      'a colour by name',
      (d) => (d.scene.backdrop[0].values.colour = 'mud'),
      'scene.backdrop[0].values.colour',
      /write it as #rrggbb/,
    ],
    [
      'an unknown light',
      (d) => (d.scene.lights[0].kind = 'moon'),
      'scene.lights[0].kind',
      /no light “moon”; use one of studio/,
    ],
    ['a scene without a camera', (d) => (d.scene.cameras = []), 'scene.cameras', /Cameras needs at least 1/],
    [
      'a part no finish has',
      (d) => (d.ribbons[0].finishes[0].parts[1].kind = 'fur'),
      'ribbons[0].finishes[0].parts[1].kind',
      /no part of a finish “fur”; use one of base, metal/,
    ],
    [
      'two finishes of the same faces',
      (d) => d.ribbons[0].finishes.push({ ...d.ribbons[0].finishes[0], id: 'x', parts: [] }),
      'ribbons[0].finishes[1].of',
      /two finishes of “main”/,
    ],
    [
      'an unknown output',
      (d) => d.outputs.push({ id: 'o', kind: 'gramophone', values: {} }),
      'outputs[0].kind',
      /no kind of output “gramophone”; use one of mp4, hevc, webm/,
    ],
    [
      'a switch that is neither',
      (d) => (d.ribbons[0].steps[1].values.invert = 'yes'),
      'ribbons[0].steps[1].values.invert',
      /neither true nor false/,
    ],
    ['no frames', (d) => (d.loop.frames = 0), 'loop.frames', /at least 1/],
    ['a wild frame rate', (d) => (d.loop.fps = 5000), 'loop.fps', /at most 240/],
    [
      'an identifier used twice',
      (d) => (d.ribbons[0].steps[1].id = d.ribbons[0].steps[0].id),
      'ribbons[0].steps[1].id',
      /used twice/,
    ],
  ])('names the place and the remedy for %s', (_, change, where, words) => {
    const read = broken(change);
    expect(read.ok).toBe(false);
    if (read.ok) return;
    expect(read.reason).toBe('faulty');
    expect(read.faults[0].path).toBe(where);
    expect(read.faults[0].message).toMatch(words);
    expect(read.message).toContain(where);
  });
  it('tells a newer document, a foreign one and a broken one apart', () => {
    const reason = (text: string) => {
      const r = readPiece(text);
      return r.ok ? 'ok' : r.reason;
    };
    expect(reason(`{"maypole":"piece","version":${PIECE_VERSION + 1},"shape":"of things to come"}`)).toBe('newer');
    expect(reason('{"hello":1}')).toBe('not-a-piece');
    expect(reason('[1,2')).toBe('not-json');
    expect(reason('{"maypole":"piece","version":"one"}')).toBe('faulty');
    expect(reason('null')).toBe('not-a-piece');
  });
  it('writes paths as a person would', () =>
    expect(formatPath(['ribbons', 0, 'steps', 2, 'values', 'height'])).toBe('ribbons[0].steps[2].values.height'));
});

describe('addresses', () => {
  const piece = sample();
  it('name every number of a piece once', () => {
    const keys = numbersOf(piece).map((n) => addressKey(n.address));
    expect(new Set(keys).size).toBe(keys.length);
    expect(keys).toContain(`scene/${piece.scene.cameras[0].id}/target.y`);
    expect(keys).toContain(`${piece.ribbons[0].id}/${piece.ribbons[0].finishes[0].parts[0].id}/roughness`);
  });
  it('set just the value they name and share all the rest', () => {
    for (const { address } of numbersOf(piece)) {
      const changed = setValue(piece, address, 0.123);
      const differing = numbersOf(changed).filter((n, i) => n.value !== numbersOf(piece)[i].value);
      expect(differing.map((n) => addressKey(n.address))).toEqual([addressKey(address)]);
    }
    const finish = numbersOf(piece).find((n) => n.address.owner.type === 'part')!;
    expect(setValue(piece, finish.address, 1).ribbons[0].steps).toBe(piece.ribbons[0].steps);
  });
});
