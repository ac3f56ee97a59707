import { z } from 'zod';
import { keepText, keptJson } from '../state/browser-store';

const keyOf = (id: string) => `maypole-sheet-${id}`;

const keys = z.array(z.string().max(200)).max(5000);
const kept = z.object({
  chosen: keys,
  locked: keys,
  reach: z.number().min(0).max(1),
  count: z.int().min(1).max(60),
  seed: z.int().min(0).max(1_000_000_000),
  way: z.discriminatedUnion('type', [
    z.object({ type: z.literal('spread') }),
    z.object({ type: z.literal('axes'), across: z.string(), down: z.string() }),
  ]),
});
type Kept = z.infer<typeof kept>;

/** What a sheet is asked for. */
interface Settings {
  readonly chosen: ReadonlySet<string>;
  readonly locked: ReadonlySet<string>;
  readonly reach: number;
  readonly count: number;
  readonly seed: number;
  readonly way: Kept['way'] | { readonly type: 'mix' };
}

/** Keeps what a sheet of a piece was asked for: the same settings give the same sheet. Mixing is of two tiles, which are gone. */
export function keepSheet(id: string, { chosen, locked, reach, count, seed, way }: Settings): void {
  const settings: Kept = {
    chosen: [...chosen],
    locked: [...locked],
    reach,
    count,
    seed,
    way: way.type === 'mix' ? { type: 'spread' } : way,
  };
  keepText(keyOf(id), JSON.stringify(settings));
}

/** What the last sheet of a piece was asked for in this browser; null where there was none, or it cannot be read. */
export function keptSheet(id: string): Kept | null {
  const read = kept.safeParse(keptJson(keyOf(id)));
  return read.success ? read.data : null;
}
