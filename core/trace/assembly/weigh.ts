/**
 * Light that may be met in two ways, by asking a lamp or by chance, counts by how likely either was (E. Veach & L.
 * Guibas, “Optimally combining sampling techniques”, 1995).
 */

/** How light is taken: ways that might have met it weighed against each other; by lamps alone; by chance alone. */
const LAMPS = 1;
const CHANCE = 2;
let taking = 0;

/** For checks: all ways come to one mean. */
export function takeBy(how: i32): void {
  taking = how;
}

/** What light counts that was met by chance, in a direction as likely as `own`, where lamps take it as likely as `other`. */
@inline
export function byChance(own: f32, other: f32): f32 {
  return taking == 0 ? own / (own + other) : taking == CHANCE || other == 0 ? 1 : 0;
}

/** What light counts that a lamp was asked for. */
@inline
export function byLamp(own: f32, other: f32): f32 {
  return taking == 0 ? own / (own + other) : taking == LAMPS ? 1 : 0;
}
