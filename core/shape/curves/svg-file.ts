// The library ships no types; so every room that reads this file finds ours.
// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- see above
/// <reference path="./element-to-path.d.ts" />
import toPath from 'element-to-path';
import svgpath from 'svgpath';
import { parseSync, type INode } from 'svgson';

/** The content of a vector drawing. */
export interface Drawing {
  /** Path data of all its shapes, in the drawing's coordinates. */
  readonly path: string;
  /** Visible elements that become no curve here, by name, with their number. */
  readonly leftOut: ReadonlyMap<string, number>;
}

/** Basic shapes of SVG 1.1, section 9. */
const SHAPES = new Set(['path', 'rect', 'circle', 'ellipse', 'line', 'polyline', 'polygon']);
/** Containers, and elements that describe but draw nothing. */
const HOLDERS = new Set(['svg', 'g', 'a', 'switch']);
const SILENT = new Set([
  '',
  'defs',
  'title',
  'desc',
  'metadata',
  'style',
  'clippath',
  'mask',
  'symbol',
  'marker',
  'pattern',
  'lineargradient',
  'radialgradient',
  'filter',
  'script',
  'sodipodi:namedview',
]);
const MOST_ELEMENTS = 20_000;

/** Whether a text is a file and not bare path data. */
export function isDrawingFile(text: string): boolean {
  return /<[a-z]/i.test(text);
}

/** Defaults of attributes. */
const ZEROS = { cx: '0', cy: '0', x1: '0', y1: '0', x2: '0', y2: '0' };

/** Lengths without units, and lists of points with single spaces, as the library reads them. */
function plain(attributes: Record<string, string>): Record<string, string> {
  return Object.fromEntries(
    Object.entries({ ...ZEROS, ...attributes }).map(([name, value]) => [
      name,
      name === 'points'
        ? value.trim().replace(/[\s,]+/g, ' ')
        : name === 'd' || name === 'transform'
          ? value
          : value.replace(/(?<=\d)px$/, ''),
    ]),
  );
}

/**
 * All lines of an SVG file: paths and basic shapes, each where the transforms of it and of all it
 * stands in put it. What cannot be drawn as a line is counted.
 *
 * @throws Error where the text is no SVG file
 */
export function drawingOf(text: string): Drawing {
  let root: INode;
  try {
    root = parseSync(text.slice(text.search(/<svg[\s>]/i) >= 0 ? text.search(/<svg[\s>]/i) : 0));
  } catch {
    throw new Error(
      'The drawing cannot be read: it is no complete SVG file. Paste or choose the whole file, from “<svg” to “</svg>”.',
    );
  }
  const parts: string[] = [];
  const leftOut = new Map<string, number>();
  let seen = 0;
  const visit = (node: INode, transforms: readonly string[]): void => {
    if (++seen > MOST_ELEMENTS)
      throw new Error(`The drawing has more than ${MOST_ELEMENTS} elements; simplify it before pasting it in.`);
    const name = node.name.toLowerCase();
    if (
      SILENT.has(name) ||
      node.attributes?.display === 'none' ||
      /display\s*:\s*none/.test(node.attributes?.style ?? '')
    )
      return;
    const all = node.attributes?.transform ? [...transforms, node.attributes.transform] : transforms;
    if (SHAPES.has(name)) {
      const d = toPath({ name, attributes: plain(node.attributes) });
      // The innermost transform acts first.
      if (d && !/NaN|undefined/.test(d))
        parts.push(all.reduceRight((path, t) => path.transform(t), svgpath(d)).toString());
      return;
    }
    if (!HOLDERS.has(name)) {
      leftOut.set(name, (leftOut.get(name) ?? 0) + 1);
      return;
    }
    for (const child of node.children) visit(child, all);
  };
  visit(root, []);
  return { path: parts.join(' '), leftOut };
}

/** "2 texts and 1 image": what was left out, in words; empty if nothing was. */
export function leftOutWords({ leftOut }: Pick<Drawing, 'leftOut'>): string {
  return [...leftOut].map(([name, n]) => `${n} × ${name}`).join(', ');
}
