/** How many ribbons a piece may have. */
export const MOST_RIBBONS = 64;
