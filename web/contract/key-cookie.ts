/** Cookie by which a browser with a worker key fetches files of pieces; it is sent to no other path. */
export const KEY_COOKIE = 'maypole-key';
