/** Least and most characters of a password (NIST SP 800-63B, 5.1.1.2: length rather than kinds of characters). */
export const PASSWORD = { least: 12, most: 128 } as const;

/** Lifetime of a worker key in days: the default, further choices, and the most. */
export const KEY_DAYS = { usual: 365, offered: [30, 90, 365, 730], most: 730 } as const;
