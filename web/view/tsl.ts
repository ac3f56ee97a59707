import type { Node } from 'three/webgpu';

/** Three numbers of a shader: a colour as light or as shown, or a vector. */
export type Rgb = Node<'vec3'>;
export type Scalar = Node<'float'>;

/** What is three numbers to a shader. The library's types tell colours, vectors and what is reckoned from them apart where shaders do not. */
export function rgb(node: unknown): Rgb {
  return node as Rgb;
}

/** What is one number to a shader. */
export function scalar(node: unknown): Scalar {
  return node as Scalar;
}
