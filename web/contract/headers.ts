/** Marks requests that a page makes by itself, so that an open window alone keeps no session alive. */
export const UNATTENDED = 'x-maypole-unattended';
