import { presetFinish, type Preset } from '@maypole/core/finish/presets';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { Offscreen } from './offscreen';

/** Balls per row of the contact sheet, and pixels of each. */
export const SHEET = { across: 6, cell: 96 } as const;

/** A long lens from far away, so that every ball is seen frontally. */
const LENS = { focalLength: 600, filmWidth: 36 } as const;

/** A piece with rows of balls, one for each preset, lit as another piece. */
function ballSheet(presets: readonly Preset[], scene: Piece['scene']): Piece {
  const { across, cell } = SHEET;
  const down = Math.ceil(presets.length / across);
  const piece = newPiece('Presets');
  const longer = Math.max(across, down);
  const values = {
    azimuth: 0,
    elevation: 0,
    distance: (longer * LENS.focalLength) / LENS.filmWidth,
    focalLength: LENS.focalLength,
    target: [0, 0, 0] as const,
  };
  return {
    ...piece,
    loop: { frames: 1, fps: 25 },
    format: { width: across * cell, height: down * cell },
    scene: {
      ...scene,
      cameras: [{ ...piece.scene.cameras[0], values: { ...piece.scene.cameras[0].values, ...values } }],
      ground: [],
      air: [],
      picture: [],
    },
    ribbons: presets.map((preset, i) => ({
      ...newRibbon('geodesic', i, preset.title),
      finishes: [presetFinish(preset)],
      steps: [
        newStep('geodesic', { radius: 0.42, frequency: 12 }),
        newStep('place', { shift: [(i % across) - (across - 1) / 2, (down - 1) / 2 - Math.floor(i / across), 0] }),
      ],
    })),
  };
}

/** Draws the contact sheet. */
export async function drawBalls(presets: readonly Preset[], scene: Piece['scene']): Promise<Blob> {
  const piece = ballSheet(presets, scene);
  const offscreen = await Offscreen.create(piece.format.width, piece.format.height, false);
  try {
    offscreen.setPiece(piece, 'draft');
    await offscreen.draw(0, 2);
    return await new Promise<Blob>((resolve, reject) =>
      offscreen.canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('The presets could not be drawn.')))),
    );
  } finally {
    offscreen.dispose();
  }
}
