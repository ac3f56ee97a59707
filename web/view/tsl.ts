import { property } from 'three/tsl';
import type { Node } from 'three/webgpu';

/** Three numbers of a shader: a colour as light or as shown, or a vector. */
export type Rgb = Node<'vec3'>;
export type Scalar = Node<'float'>;

/**
 * What is three numbers to a shader. The library's types tell colours, vectors and what is reckoned from them
 * apart where shaders do not.
 */
export function rgb(node: unknown): Rgb {
  return node as Rgb;
}

/** What is one number to a shader. */
export function scalar(node: unknown): Scalar {
  return node as Scalar;
}

/** Whole numbers of a shader. */
export type Int = Node<'int'>;
export type Uint = Node<'uint'>;

/** What is one whole number to a shader. */
export function integer(node: unknown): Int {
  return node as Int;
}

/** What is one whole number from 0 to a shader. */
export function unsigned(node: unknown): Uint {
  return node as Uint;
}

/** What is four numbers to a shader. */
export function four(node: unknown): Node<'vec4'> {
  return node as Node<'vec4'>;
}

/** A variable of a shader that may be written. */
export interface Variable {
  assign(value: unknown): void;
  addAssign(value: unknown): void;
}

/** A variable of three numbers with a name of its own. */
export function variable(name: string): Rgb & Variable {
  return property('vec3', name) as object as Rgb & Variable;
}
