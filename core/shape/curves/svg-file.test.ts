import { describe, expect, it } from 'vitest';
import { evaluateRibbon } from '../../evaluate/ribbon';
import { MeshCache } from '../../evaluate/mesh-cache';
import { newRibbon, newStep } from '../../piece/piece';
import { stepKind } from '../../steps/index';
import { drawingOf, leftOutWords } from './svg-file';
import { pathLines } from './svg-path';

const svg = (inner: string) =>
  `<?xml version="1.0"?>\n<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100">${inner}</svg>`;
const boxOf = (text: string) => {
  const p = pathLines(drawingOf(text).path, 0.001).flatMap((l) => l.points);
  const side = (k: number) => p.filter((_, i) => i % 2 === k);
  return [Math.min(...side(0)), Math.min(...side(1)), Math.max(...side(0)), Math.max(...side(1))].map((x) =>
    Number(x.toFixed(2)),
  );
};

describe('a whole drawing', () => {
  // Corners worked out by hand from SVG 1.1, sections 7 (transforms) and 9 (basic shapes).
  it.each<[string, string, number[]]>([
    ['rect', '<rect x="10" y="20" width="30px" height="40"/>', [10, 20, 40, 60]],
    ['a rounded rect', '<rect x="0" y="0" width="10" height="10" rx="2"/>', [0, 0, 10, 10]],
    ['circle', '<circle cx="50" cy="50" r="10"/>', [40, 40, 60, 60]],
    ['ellipse', '<ellipse cx="0" cy="0" rx="3" ry="7"/>', [-3, -7, 3, 7]],
    ['line', '<line x1="1" y1="2" x2="3" y2="4"/>', [1, 2, 3, 4]],
    ['polyline over several lines', '<polyline points="0,0\n 5 5\n\t10,0"/>', [0, 0, 10, 5]],
    ['polygon', '<polygon points="0 0 4 0 4 3"/>', [0, 0, 4, 3]],
    ['path', '<path d="M1 1h8v4z"/>', [1, 1, 9, 5]],
    [
      'nested transforms: the inner first',
      '<g transform="translate(10 0)"><g transform="scale(2)"><rect x="1" y="1" width="2" height="2"/></g></g>',
      [12, 2, 16, 6],
    ],
    ['a turned one', '<g transform="translate(5,5) rotate(90)"><line x1="0" y1="0" x2="3" y2="0"/></g>', [5, 5, 5, 8]],
  ])('%s', (_, inner, box) => expect(boxOf(svg(inner))).toEqual(box));
  it('says what it leaves out, and passes over what is not seen', () => {
    const drawing = drawingOf(
      svg(
        '<defs><rect width="9" height="9"/></defs><text>Hail</text><text>Rain</text><image href="x.png"/><rect display="none" width="5" height="5"/><circle r="1"/>',
      ),
    );
    expect(leftOutWords(drawing)).toBe('2 × text, 1 × image');
    expect(pathLines(drawing.path, 0.01)).toHaveLength(1);
  });
  it('is refused in words where it is not complete', () => {
    for (const text of ['<svg><rect', '<p>no drawing</p', '<'])
      expect(() => drawingOf(text), text).toThrow(/cannot be read/);
  });
  it('is a form, whose card says what is missing', () => {
    const text = svg('<rect width="4" height="2"/><circle cx="9" cy="1" r="1"/><text>Wind</text>');
    const at = (path: string) =>
      evaluateRibbon(
        { ...newRibbon('svg', 0), steps: [newStep('svg', { path, size: 3 })] },
        { frames: 10, fps: 10 },
        0,
        'draft',
        new MeshCache(),
      );
    const { mesh, problems } = at(text);
    expect(problems).toEqual([]);
    expect(mesh.connectivity.curves!.closed.length).toBe(2);
    expect(stepKind('svg').summary({ path: text, size: 3, detail: 50 } as never)).toBe('3 m, without 1 × text');
    expect(at('<svg><rect').problems[0].message).toContain('no complete SVG file');
    expect(at(svg('<text>x</text>')).problems[0].message).toContain('1 × text');
  });
});
