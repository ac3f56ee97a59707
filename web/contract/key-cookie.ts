/** The cookie in which a browser that works by a key shows it where files of pieces are; no other address gets to see it. */
export const KEY_COOKIE = 'maypole-key';
