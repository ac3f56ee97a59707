import { writeImage } from '@maypole/core/assets/image';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { stepKinds } from '@maypole/core/steps/index';
import { describe, expect, it } from 'vitest';
import { pieceFrom } from './work/piece-from';

/** The form that is made of a file, and the name of that value. */
const imported = stepKinds.find((k) => k.group === 'form' && Object.values(k.params).some((p) => p.type === 'asset'))!;
const param = Object.keys(imported.params).find((name) => imported.params[name].type === 'asset')!;
const fingerprint = 'c0ffee'.repeat(10) + 'abcd';
const piece = (on = true): Piece => ({
  ...newPiece('With a file'),
  ribbons: [{ ...newRibbon('box', 0, 'Ring'), on, steps: [newStep(imported.kind, { [param]: fingerprint })] }],
});
const parcel = (data: unknown) =>
  JSON.stringify({
    maypole: 'parcel',
    piece: writePiece(piece()),
    assets: { [fingerprint]: { name: 'vane.ply', data } },
  });

describe('a piece that is made with files', () => {
  it('is refused where one is not there, with where it is named and what to do', async () => {
    await expect(pieceFrom(writePiece(piece()))).rejects.toMatchObject({
      name: 'PieceTrouble',
      missing: true,
      message: expect.stringMatching(
        /^The file c0ffeec0… .* at Ring, .* is not here\. Export the piece as a parcel/,
      ) as string,
    });
    // Of what is off nothing is missing.
    expect((await pieceFrom(writePiece(piece(false)))).name).toBe('With a file');
  });
  it('is refused in a sentence where one is damaged', async () => {
    for (const data of [
      7,
      '',
      'AAAA',
      Buffer.from(writeImage(new Uint8Array(4), 1, 1).subarray(0, 40)).toString('base64'),
    ])
      await expect(pieceFrom(parcel(data))).rejects.toMatchObject({
        name: 'PieceTrouble',
        missing: false,
        message: expect.stringContaining('“vane.ply” is damaged') as string,
      });
  });
});
