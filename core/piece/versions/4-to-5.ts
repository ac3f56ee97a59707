/**
 * Version 5: files in scenes and patterns, more lights, airs, effects and parts of finishes. All that is new
 * may be left out, or has a value at which it changes nothing.
 */
export function from4to5(old: unknown): unknown {
  return typeof old === 'object' && old !== null && !Array.isArray(old) ? { ...old, version: 5 } : old;
}
