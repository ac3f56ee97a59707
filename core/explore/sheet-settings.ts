import { z } from 'zod';

/** Most tiles of a sheet. */
export const MOST_TILES = 60;

const keys = z.array(z.string().max(200)).max(5000);
const spread = z.strictObject({ type: z.literal('spread') });
const axes = z.strictObject({ type: z.literal('axes'), across: z.string().max(200), down: z.string().max(200) });

/** Settings of a sheet of variations; equal settings of the same piece give the same sheet. */
export const sheetSettings = z.strictObject({
  /** Keys of values that vary, and of those that stay. */
  chosen: keys,
  locked: keys,
  reach: z.number().min(0).max(1),
  count: z.int().min(1).max(MOST_TILES),
  seed: z.int().min(0).max(1_000_000_000),
  way: z.discriminatedUnion('type', [spread, axes]),
});
export type SheetSettings = z.infer<typeof sheetSettings>;

/**
 * A stored sheet: its settings, the numbers of its tiles (so that the same ones appear, whatever was filtered out),
 * and, between two pieces, their documents.
 */
export const keptSheet = sheetSettings.extend({
  way: z.discriminatedUnion('type', [
    spread,
    axes,
    z.strictObject({ type: z.literal('mix'), a: z.string().max(2_000_000), b: z.string().max(2_000_000) }),
  ]),
  throws: z.array(z.int().min(0).max(10_000)).max(MOST_TILES).optional(),
});
export type KeptSheet = z.infer<typeof keptSheet>;
