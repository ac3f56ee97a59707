/**
 * Reference results of the path tracer, as SHA-256 of the sums of all pixels, rows from the top: for a small picture
 * (reference.ts), and for a piece with dispersive glass, copies with a thin film, thin rods and three kinds of light
 * (reference-piece.ts). Tests and `/check` hold every machine to them; a new number here means a new renderer version
 * (renderer-version.ts).
 */
export const BITS = {
  picture: 'ce6473edb6ae181c906b19520b66c3236f5789f48b000288e75952f5e110e18e',
  piece: '7514e203ec531f9477b39c0b94479a698a018c9fde8b7e294a19a3e946eadb7b',
} as const;
