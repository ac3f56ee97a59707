/** Render layer of what is drawn after everything else; lamps are on it too. */
export const AIR_LAYER = 1;

/** Marks a lamp that stands for the environment and is not visible in haze. */
export const FILLS = 'fills';
