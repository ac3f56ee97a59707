/** Letters a password has at least and at most (NIST SP 800-63B, 5.1.1.2, with a length rather than kinds of letters). */
export const PASSWORD = { least: 12, most: 128 } as const;

/** Days that a key is good for: what the page offers first, what it offers besides, and the most. */
export const KEY_DAYS = { usual: 365, offered: [30, 90, 365, 730], most: 730 } as const;
