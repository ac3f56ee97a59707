/** The layer of what is drawn after everything else; lamps are on it, too. */
export const AIR_LAYER = 1;

/** Marks a lamp that stands for light from all round, and is not seen in the air. */
export const FILLS = 'fills';
