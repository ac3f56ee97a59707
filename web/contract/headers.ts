/** By this header a page says that it asks by itself, so that an open window alone keeps no session alive. */
export const UNATTENDED = 'x-maypole-unattended';
