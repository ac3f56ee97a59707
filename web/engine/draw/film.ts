import type { Piece } from '@maypole/core/piece/piece';
import { drawsInSoftware } from '@/view/stage/software';
import { halvesFirst } from '../evaluate/halves-first';
import { Offscreen } from './offscreen';

/** Longer side of a picture in pixels, and most pictures of a loop; in software, and on a card. */
const [SLOWLY, QUICKLY] = [
  { side: 320, most: 16 },
  { side: 480, most: 48 },
];

/** The loop of a piece as pictures that fill in. */
export interface Film {
  readonly width: number;
  readonly height: number;
  /** Equal steps around the loop; null for missing ones. */
  readonly pictures: (ImageBitmap | null)[];
}

/** The picture at a share of the loop: the nearest earlier one that exists. */
export function pictureOf({ pictures }: Film, share: number): ImageBitmap | null {
  const { length } = pictures;
  let i = Math.floor((share - Math.floor(share)) * length);
  for (let tried = 0; tried < length; tried++, i = (i + length - 1) % length) if (pictures[i]) return pictures[i];
  return null;
}

/** Films of two pieces, drawn alternately so that both move early. */
export class FilmPair {
  readonly films: readonly [Film, Film];
  private readonly offscreens: Offscreen[] = [];
  private ended = false;

  private readonly plain = drawsInSoftware(document.createElement('canvas'));

  constructor(private readonly pieces: readonly [Piece, Piece]) {
    const { side, most } = this.plain ? SLOWLY : QUICKLY;
    const film = ({ format, loop }: Piece): Film => {
      const scale = side / Math.max(format.width, format.height);
      return {
        width: Math.max(16, Math.round(format.width * scale)),
        height: Math.max(16, Math.round(format.height * scale)),
        pictures: Array<ImageBitmap | null>(Math.min(most, loop.frames)).fill(null),
      };
    };
    this.films = [film(pieces[0]), film(pieces[1])];
  }

  /** Draws them; `onPicture` is called after each. Throws if one cannot be drawn. */
  async draw(onPicture: () => void): Promise<void> {
    for (const [k, { width, height }] of this.films.entries()) {
      const offscreen = await Offscreen.create(width, height, false);
      if (this.ended) return offscreen.dispose();
      offscreen.setPiece(this.pieces[k], 'draft', 'shaded', false, this.plain);
      this.offscreens.push(offscreen);
      if (await offscreen.waits(0))
        throw new Error(`“${this.pieces[k].name}” takes too much work to be drawn here; open it by itself.`);
    }
    const orders = this.films.map((f) => halvesFirst(f.pictures.length));
    for (let n = 0; n < Math.max(...orders.map((o) => o.length)); n++)
      for (const [k, order] of orders.entries()) {
        if (n >= order.length) continue;
        const { pictures } = this.films[k];
        await this.offscreens[k].draw((order[n] * this.pieces[k].loop.frames) / pictures.length, this.plain ? 1 : 4);
        const picture = await createImageBitmap(this.offscreens[k].canvas);
        if (this.ended) return picture.close();
        pictures[order[n]] = picture;
        onPicture();
      }
  }

  dispose(): void {
    this.ended = true;
    for (const o of this.offscreens) o.dispose();
    for (const { pictures } of this.films) {
      for (const p of pictures) p?.close();
      pictures.fill(null);
    }
  }
}
