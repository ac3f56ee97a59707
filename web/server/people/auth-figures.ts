/** Letters a password has at least and at most (NIST SP 800-63B, 5.1.1.2, with a length rather than kinds of letters). */
export const PASSWORD = { least: 12, most: 128 } as const;
