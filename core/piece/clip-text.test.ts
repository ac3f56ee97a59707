import { describe, expect, it } from 'vitest';
import { motionFrom, motionLook, stepsLook, withSteps } from '../looks/kept-parts';
import { wave } from '../starts/start';
import { clipText, readClip } from './clip-text';
import { newPiece, newRibbon, newStep } from './piece';
import { writePiece } from './read';

const bead = { ...newRibbon('sphere', 0, 'Bead'), id: 'bead', steps: [newStep('sphere'), newStep('twist')] };
const piece = { ...newPiece('Piece'), ribbons: [bead] };

describe('steps and motions as text', () => {
  it('come back as they were, with blanks and line ends of a mail around them', () => {
    const steps = readClip(`\n  ${clipText('steps', stepsLook('Twist', piece, 'bead'))}\r\n`);
    if (!steps.ok) throw new Error(steps.message);
    const made = withSteps(piece, 'bead', steps.look);
    expect(made.ok && made.piece.ribbons[0].steps.map((s) => s.kind)).toEqual(['sphere', 'twist', 'twist']);
    const motion = readClip(clipText('motion', motionLook('Sway', piece.loop, wave(1, 2))));
    expect(motion.ok && motionFrom(motion.look)).toEqual(wave(1, 2));
  });

  it.each([
    ['', true],
    ['hello', true],
    [writePiece(piece), true],
    ['{"maypole":"steps","piece":{"maypole":"piece"', false],
    ['{"maypole":"steps"}', false],
    ['{"maypole":"motion","piece":{"maypole":"piece","version":99999}}', false],
  ])('%j is refused', (text, none) => expect(readClip(text)).toMatchObject({ ok: false, none }));
});
