/** Width of a blurred point, in thousandths of the picture's height, up to which it is sharp to the eye. */
export const SHARP = 1.5;

/** Colours, as they are shown, of what is sharp, of what lies before it, and of what lies behind it. */
export const SHARP_COLOURS = { sharp: '#2FBF8A', before: '#E8A317', behind: '#4A78C9' } as const;
