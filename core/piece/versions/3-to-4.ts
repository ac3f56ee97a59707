/**
 * Version 4: patterns of finishes, grounds, and more that may be said of light and camera. All that is new may
 * be left out, or has a value at which it changes nothing.
 */
export function from3to4(old: unknown): unknown {
  return typeof old === 'object' && old !== null && !Array.isArray(old) ? { ...old, version: 4 } : old;
}
