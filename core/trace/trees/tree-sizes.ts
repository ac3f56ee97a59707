/**
 * Bytes of a node, of a packet of four triangles, of a box and of a triangle's corners, and of the binary tree per box;
 * see core/trace/assembly/trees/tree.ts.
 */
export const NODE = 224;
export const PACKET = 160;
export const BOX = 32;
export const CORNERS = 48;
export const BINARY_TREE = 128;
/** Children of a node. */
export const WIDE = 8;
