/** The preview of a starting point: frames side by side, each this many pixels high and wide. */
export const START_STRIP = { side: 176, frames: 24 } as const;
