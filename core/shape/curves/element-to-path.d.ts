declare module 'element-to-path' {
  /** Path data of a basic shape of SVG. */
  export default function toPath(node: { readonly name: string; readonly attributes: Record<string, string> }): string;
}
