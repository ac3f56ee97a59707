/**
 * Bytes of a node of a tree, of a packet of four triangles, of a box and of a triangle's corners, and for each box of the
 * binary tree that another is made from; see core/trace/assembly/tree.ts.
 */
export const NODE = 224;
export const PACKET = 160;
export const BOX = 32;
export const CORNERS = 48;
export const BINARY_TREE = 128;
/** Boxes that a node has at most. */
export const WIDE = 8;
