/**
 * migrations[v] turns a document of version v into one of version v + 1. Each is pure and is never
 * changed after release. Version 1 is the first, so there is nothing to bring up to date yet.
 */
export const migrations: Readonly<Record<number, (document: unknown) => unknown>> = {};
