import { describe, expect, it } from 'vitest';
import { newFinish, newItem, newPiece, newRibbon } from '../piece/piece';
import { readPieceValue } from '../piece/read';
import { surfaceOf, surfacesOf } from './finish';
import { finishParts } from './parts/index';
import { presetFinish, presets } from './presets';
import { PLAIN_SURFACE } from './surface';

const now = { frame: 0, frames: 10 };
const finish = (...parts: ReturnType<typeof newItem>[]) => ({ ...newFinish(), parts });
const part = (kind: string, values: object = {}) => newItem(finishParts.get(kind), values as never);

describe('a finish', () => {
  it('without parts has the defaults of glTF 2.0 (section 3.9 and the tables of its extensions)', () => {
    const s = surfaceOf(finish(), now);
    expect([s.baseColor, s.roughness, s.metalness, s.ior]).toEqual(['#FFFFFF', 1, 0, 1.5]);
    expect([s.transmission, s.thickness, s.attenuationDistance, s.dispersion]).toEqual([0, 0, Infinity, 0]);
    expect([s.clearcoat, s.sheenRoughness, s.iridescence, s.iridescenceIor]).toEqual([0, 0, 0, 1.3]);
    expect(s).toEqual(PLAIN_SURFACE);
  });
  it('has the units of the standard: shares of 1, metres, nanometres', () => {
    const s = surfaceOf(
      finish(part('coat', { coat: 80, roughness: 5 }), part('film', { film: 50, thickness: 333 })),
      now,
    );
    expect([s.clearcoat, s.clearcoatRoughness, s.iridescence, s.iridescenceThickness]).toEqual([0.8, 0.05, 0.5, 333]);
    expect(surfaceOf(finish(part('glass', { tintAfter: 0.7, dispersion: 0.36 })), now)).toMatchObject({
      transmission: 1,
      attenuationDistance: 0.7,
      dispersion: 0.36,
    });
  });
  it('asks a drawer for what its parts need, whatever their values; parts that are off ask for nothing', () => {
    const all = finishParts.all.map((p) => part(p.kind));
    expect(surfaceOf(finish(...all), now).features).toEqual([
      'brushed',
      'bump',
      'glass',
      'film',
      'coat',
      'cloth',
      'glow',
      'veil',
      'cut',
      'wires',
      'dots',
    ]);
    expect(surfaceOf(finish(part('coat', { coat: 0 })), now).features).toEqual(['coat']);
    expect(surfaceOf(finish({ ...part('coat'), on: false }), now)).toEqual(PLAIN_SURFACE);
  });
  it('any value of a part moves, and closes', () => {
    const swing = { motion: 'wave', shape: 'sine', width: 50, low: 200, high: 800, turns: 1, phase: 0, rest: 0 };
    const soap = finish(part('film', { thickness: swing }));
    const at = (frame: number) => surfaceOf(soap, { frame, frames: 10 }).iridescenceThickness;
    expect(at(2.5)).toBeCloseTo(800, 9);
    expect(at(10)).toBe(at(0));
  });
});

describe('presets', () => {
  it.each(presets.map((p) => [p.title, p] as const))('%s makes a valid piece', (_, preset) => {
    const ribbon = { ...newRibbon('sphere', 0), finishes: [presetFinish(preset)] };
    const read = readPieceValue(JSON.parse(JSON.stringify({ ...newPiece(), ribbons: [ribbon] })));
    if (!read.ok) throw new Error(read.message);
    const [surface] = [surfacesOf(read.piece.ribbons[0].finishes, now)[0]];
    for (const kind of Object.keys(preset.parts)) {
      const { feature } = finishParts.get(kind);
      if (feature) expect(surface.features).toContain(feature);
    }
  });
  it('have names of their own', () => {
    for (const key of ['id', 'title'] as const) expect(new Set(presets.map((p) => p[key])).size).toBe(presets.length);
  });
});
