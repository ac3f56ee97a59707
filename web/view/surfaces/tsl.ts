import { property } from 'three/tsl';
import type { Node } from 'three/webgpu';

/** A three-component shader value: a colour, linear or display, or a vector. */
export type Rgb = Node<'vec3'>;
export type Scalar = Node<'float'>;

/**
 * Any three-component shader value. The library's types distinguish colours, vectors and results where shaders do not.
 */
export function rgb(node: unknown): Rgb {
  return node as Rgb;
}

/** A scalar shader value. */
export function scalar(node: unknown): Scalar {
  return node as Scalar;
}

/** An integer shader value. */
export type Int = Node<'int'>;
export type Uint = Node<'uint'>;

/** A value as a shader integer. */
export function integer(node: unknown): Int {
  return node as Int;
}

/** A value as an unsigned shader integer. */
export function unsigned(node: unknown): Uint {
  return node as Uint;
}

/** A value as a four-component shader value. */
export function four(node: unknown): Node<'vec4'> {
  return node as Node<'vec4'>;
}

/** A writable shader variable. */
export interface Variable {
  assign(value: unknown): void;
  addAssign(value: unknown): void;
}

/** A named three-component shader variable. */
export function variable(name: string): Rgb & Variable {
  return property('vec3', name) as object as Rgb & Variable;
}
