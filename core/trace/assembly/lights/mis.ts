/**
 * Multiple importance sampling of lights and BSDF by the balance heuristic (E. Veach & L. Guibas, “Optimally combining
 * sampling techniques”, 1995).
 */

/** Strategies: both, weighted; light sampling alone; BSDF sampling alone. */
const LIGHTS_ONLY = 1;
const BSDF_ONLY = 2;
let strategies = 0;

/** For checks: all strategies converge to one mean. */
export function setStrategies(how: i32): void {
  strategies = how;
}

/** Weight of light found by BSDF sampling with pdf `own`, which light sampling finds with pdf `other`. */
@inline
export function bsdfMisWeight(own: f32, other: f32): f32 {
  return strategies == 0 ? own / (own + other) : strategies == BSDF_ONLY || other == 0 ? 1 : 0;
}

/** Weight of light found by light sampling. */
@inline
export function lightMisWeight(own: f32, other: f32): f32 {
  return strategies == 0 ? own / (own + other) : strategies == LIGHTS_ONLY ? 1 : 0;
}
