/** Blur width, in thousandths of the picture's height, up to which a point looks sharp. */
export const SHARP = 1.5;

/** Display colours of what is in focus, in front of it, and behind it. */
export const SHARP_COLOURS = { sharp: '#2FBF8A', before: '#E8A317', behind: '#4A78C9' } as const;
