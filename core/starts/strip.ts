/** The pictures of a starting point: so many equal frames side by side, each so many pixels high and wide. */
export const START_STRIP = { side: 176, frames: 24 } as const;
