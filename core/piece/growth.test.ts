import { describe, expect, it } from 'vitest';
import { defaultsOf } from '../declare/params';
import { conditionsOf } from '../declare/shown';
import { finishValues } from '../fixtures/edit';
import { stepKind } from '../steps/index';
import { newPiece, newRibbon, newStep } from './piece';
import { readPieceValue } from './read';

/** A piece as one was written in version 1, before regions, second finishes and surface space. */
function early(): Record<string, unknown> {
  const piece = JSON.parse(
    JSON.stringify({
      ...newPiece('Early'),
      version: 1,
      scene: {},
      ribbons: [{ ...newRibbon('box', 0), steps: [newStep('box'), newStep('displace'), newStep('shell')] }],
    }),
  );
  piece.output = piece.format;
  delete piece.format;
  delete piece.outputs;
  const [ribbon] = piece.ribbons;
  delete ribbon.finishes;
  ribbon.finish = { colour: '#336699', roughness: 30, metalness: 0 };
  ribbon.steps[0].values = { size: [1, 2, 3], segments: 4 };
  ribbon.steps[1].values = { height: 0.4, noise: 'cellular', seed: 3 };
  ribbon.steps[2].values = { thickness: 0.1 };
  return piece;
}

describe('pieces written before a value was there', () => {
  it('open with what they had and the usual value for the rest', () => {
    const read = readPieceValue(early());
    if (!read.ok) throw new Error(read.message);
    const [ribbon] = read.piece.ribbons;
    expect(finishValues(ribbon)).toEqual({ colour: '#336699', roughness: 30, specular: 100, metalness: 0 });
    expect(ribbon.steps[0].values).toEqual({
      size: [1, 2, 3],
      rounding: 0,
      segments: 4,
      uneven: false,
      counts: [8, 8, 8],
    });
    expect(ribbon.steps[1].values).toEqual({
      ...defaultsOf(stepKind('displace').params),
      height: 0.4,
      noise: 'cellular',
      seed: 3,
    });
    expect(ribbon.steps[2].values).toMatchObject({ thickness: 0.1, region: 'all', lining: 'own' });
  });
  it('what is not sound is named with its place and what would be', () => {
    const broken = (change: (p: { ribbons: { steps: { values: Record<string, unknown> }[] }[] }) => void) => {
      const p = early();
      change(p as never);
      const read = readPieceValue(p);
      return read.ok ? '' : read.message;
    };
    expect(broken((p) => (p.ribbons[0].steps[1].values.region = 'cloud'))).toMatch(
      /cloud.* is not a choice of Region; use one of all, ball/,
    );
    expect(broken((p) => (p.ribbons[0].steps[1].values.picture = 'x.png'))).toContain('64 hexadecimal digits');
    expect(broken((p) => (p.ribbons[0].steps[1].values.regionRibbon = 7))).toContain('identifier of a ribbon');
    expect(broken((p) => (p.ribbons[0].steps[0].values.rounding = -1))).toContain('below the smallest Rounding, 0');
  });
  it('texts are held to their length', () => {
    const p = {
      ...newPiece(),
      ribbons: [{ ...newRibbon('text', 0), steps: [newStep('text', { text: 'x'.repeat(301) })] }],
    };
    const read = readPieceValue(JSON.parse(JSON.stringify(p)));
    expect(!read.ok && read.message).toContain('301 characters long; the most is 300');
  });
});

describe('every declaration', () => {
  it('has a sentence of help, a range that holds its usual value, and rows shown by choices that exist', async () => {
    const { stepKinds } = await import('../steps/index');
    for (const kind of stepKinds)
      for (const [name, p] of Object.entries(kind.params)) {
        const where = `${kind.kind}.${name}`;
        expect(p.help, where).toMatch(/^[A-Z0-9].*\.$/);
        if (p.type === 'number') {
          expect(p.default >= p.min && p.default <= p.max, where).toBe(true);
          expect(p.soft[0] >= p.min && p.soft[1] <= p.max && p.soft[0] < p.soft[1], where).toBe(true);
        }
        if (p.type === 'choice')
          expect(
            p.options.map((o) => o.value),
            where,
          ).toContain(p.default);
        for (const when of conditionsOf(p)) {
          const by = kind.params[when.param];
          expect(by, where).toBeDefined();
          const known: readonly unknown[] =
            by.type === 'choice' ? by.options.map((o) => o.value) : by.type === 'ribbon' ? [''] : [true, false];
          for (const x of 'is' in when ? when.is : when.not) expect(known, where).toContain(x);
        }
      }
  });
});
