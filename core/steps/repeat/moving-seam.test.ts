import { describe, expect, it } from 'vitest';
import { lengthenLoop } from '../../piece/lengthen';
import { linkPiece } from '../../piece/link';
import { newPiece, newRibbon, newStep, type Piece, type StepDoc } from '../../piece/piece';
import type { Evaluated, Params } from '../../declare/params';
import { evaluateValues } from '../../time/values';
import { checkSeam } from '../../seam/check';
import { ribbonClosure } from '../../seam/measure';
import { randomSource } from '../../maths/random';
import { stepKind } from '../index';

const FRAMES = 24;
const wave = { motion: 'wave', shape: 'sine', width: 50, low: 0.1, high: 0.2, turns: 1, phase: 0.1, rest: 0 } as never;
/** Three forms that nothing brings together but their own motion; the first grows and shrinks once a loop. */
const piece = (step: StepDoc): Piece => ({
  ...newPiece('Weather Row'),
  loop: { frames: FRAMES, fps: 12 },
  ribbons: [
    { ...newRibbon('box', 0), id: 'a', steps: [newStep('box', { segments: 1, size: [wave, 0.1, 0.06] }), step] },
    { ...newRibbon('cone', 1), id: 'b', steps: [newStep('cone', { radius: 0.1, height: 0.2, sides: 5 } as never)] },
    { ...newRibbon('platonic', 2), id: 'c', steps: [newStep('platonic', { radius: 0.07 } as never)] },
  ],
});
const closes = (step: StepDoc) => ribbonClosure(piece(step), linkPiece(piece(step)).ribbons[0], 'draft').how !== 'open';
const saidOf = (step: StepDoc) => {
  const kind = stepKind(step.kind);
  return kind.seam!(
    evaluateValues(kind.params, step.values, { frame: 0, frames: FRAMES }) as Evaluated<Params>,
    FRAMES,
  );
};

const random = randomSource(77);
const whole = (low: number, high: number) => low + Math.floor(random() * (high - low + 1));
const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
/** Settings of a repeat that moves on, with now and then something that its copies take along. */
function drawn(kind: string): StepDoc {
  const count = whole(2, 9);
  return newStep(kind, {
    advance: pick([-7, -3, -2, -1, 1, 2, 3, 4, 6, count, -count]),
    takes: pick(['own', 'own', 'turn', 'chance', 'patches']),
    second: pick(['b', 'b', '']),
    third: pick(['c', '']),
    quarters: pick(['none', 'none', 'none', 'y']),
    later: pick([0, 0, 0, 1, 5, 12, FRAMES]),
    ends: random() < 0.5,
    ...(kind === 'repeat-grid'
      ? { columns: count, rows: whole(1, 3), layout: pick(['square', 'brick', 'hex']) }
      : { count }),
    ...(kind === 'repeat-rings' ? { rings: whole(1, 2), more: whole(0, 3) } : {}),
  } as never);
}

describe.each(['repeat-line', 'repeat-rings', 'repeat-grid'])('%s whose copies move on', (kind) => {
  const steps = Array.from({ length: 60 }, () => drawn(kind));
  it('says that it does not close wherever its shape does not', () => {
    const silent = steps.filter((s) => !saidOf(s) && !closes(s));
    expect(silent.map((s) => s.values)).toEqual([]);
    expect(steps.filter((s) => saidOf(s)).length).toBeGreaterThan(15);
    expect(steps.filter((s) => !saidOf(s)).length).toBeGreaterThan(10);
  });
  it('and a loop as many times longer as it says closes', () => {
    for (const s of steps) {
      const loops = saidOf(s)?.loops;
      if (!loops) continue;
      const longer = lengthenLoop(piece(s), loops);
      expect(
        ribbonClosure(longer, linkPiece(longer).ribbons[0], 'draft').how,
        `${JSON.stringify(s.values)} × ${loops}`,
      ).not.toBe('open');
    }
  });
  it('and each repair that it offers closes', () => {
    let tried = 0;
    for (const s of steps)
      for (const r of saidOf(s)?.repairs ?? []) {
        const mended = { ...s, values: { ...s.values, ...(r.values as typeof s.values) } };
        expect(closes(mended), `${JSON.stringify(s.values)} with ${r.words}`).toBe(true);
        expect(saidOf(mended)).toBeNull();
        tried++;
      }
    expect(tried).toBeGreaterThan(15);
  });
});

describe('what is said of copies that move on', () => {
  const line = (values: object) =>
    newStep('repeat-line', { count: 6, advance: 1, second: 'b', third: 'c', ...values } as never);
  it('names what they take along, and what closes', () => {
    expect(saidOf(line({ takes: 'turn' }))).toEqual({
      words: 'Copies of 3 ribbons in turn move on by 1 place, so that others stand where they stood.',
      loops: 6,
      repairs: [
        { words: 'Move on by 3', values: { advance: 3 } },
        { words: 'Move on by 6', values: { advance: 6 } },
      ],
    });
    expect(saidOf(line({ takes: 'turn', count: 7, advance: -2 }))!.repairs.map((r) => r.words)).toEqual([
      '9 copies, Move on by -3',
      'Move on by -7',
    ]);
    expect(saidOf(line({ quarters: 'y', later: 5 }))!.words).toContain(
      'each takes its own time and its own quarter turn along',
    );
    expect(saidOf(line({ later: 5 }))!.repairs.map((r) => r.words)).toEqual(['Move on by 6', 'All at one time']);
  });
  it('counts every ribbon that is named, up to the first row that names none', () => {
    const five = { takes: 'turn', count: 10, advance: 3, fourth: 'd', fifth: 'e', seventh: 'f' };
    expect(saidOf(line(five))!.words).toContain('Copies of 5 ribbons in turn');
    expect(saidOf(line({ ...five, advance: 5 }))).toBeNull();
  });
  it('is a gap in the check of the seam, and none where the shape closes all the same', async () => {
    const open = await checkSeam(piece(line({ takes: 'turn' })), 'draft', false);
    expect(open.closed).toBe(false);
    expect(open.proof.truePeriod).toBe(6 * FRAMES);
    expect(open.proof.findings.map((f) => f.words).join()).toContain('Copies of 3 ribbons in turn');
    // Copies of a ribbon that stands still are the same at any time.
    const still = piece(line({ later: 5 }));
    const closed = await checkSeam(
      {
        ...still,
        ribbons: still.ribbons.map((r) => ({
          ...r,
          steps: r.steps.map((s) => (s.kind === 'box' ? newStep('box', { segments: 1 }) : s)),
        })),
      },
      'draft',
      false,
    );
    expect(closed.closed).toBe(true);
  });
});
