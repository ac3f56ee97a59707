import { number, text } from '../../declare/params';
import { curvesMesh } from '../../shape/curves/curves';
import { drawingOf, isDrawingFile, leftOutWords, type Drawing } from '../../shape/curves/svg-file';
import { PathProblem, pathLines } from '../../shape/curves/svg-path';
import { brief, defineStep, StepProblem } from '../step';

/** A wind drop, drawn for Larkhaven. */
const DROP = 'M50 4C50 4 82 44 82 64a32 32 0 0 1-64 0C18 44 50 4 50 4ZM36 64a14 14 0 0 0 14 14';

let last: { readonly text: string; readonly drawing: Drawing | string } | null = null;

/** The drawing: bare path data as it is, or all shapes of an SVG file; a sentence if it cannot be read. */
function read(text: string): Drawing | string {
  if (!isDrawingFile(text)) return { path: text, leftOut: new Map() };
  if (last?.text !== text) {
    let drawing: Drawing | string;
    try {
      drawing = drawingOf(text);
    } catch (error) {
      drawing = (error as Error).message;
    }
    last = { text, drawing };
  }
  return last.drawing;
}

function without(text: string): string {
  const drawing = read(text);
  return typeof drawing === 'string' ? '' : leftOutWords(drawing);
}

/** Curves of a vector drawing, upright and facing front. */
export const svg = defineStep({
  kind: 'svg',
  title: 'Drawing',
  help: 'The lines of a vector drawing: an SVG file, chosen or pasted in, or path data.',
  icon: 'svg',
  group: 'form',
  params: {
    path: text('Path', DROP, 'A whole SVG file with its paths and basic shapes, or path data as in SVG.', {
      max: 400_000,
      lines: 4,
      file: '.svg',
    }),
    size: number('Size', 2, 'Of its larger side.', { unit: 'm', min: 0.001, max: 1000, soft: [0.1, 6] }),
    detail: number('Detail', 50, 'How finely curves are drawn.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [1, 100],
      step: 1,
      moves: false,
    }),
  },
  summary: (v) => `${brief(v.size)} m${without(v.path) ? `, without ${without(v.path)}` : ''}`,
  evaluate(v) {
    const drawing = read(v.path);
    if (typeof drawing === 'string') throw new StepProblem(drawing);
    const d = drawing.path;
    if (d.trim() === '') {
      const others = leftOutWords(drawing);
      throw new StepProblem(
        'There is no line to ' +
          `draw${others ? `, only ${others}, which have none; turn them into paths in the program that made the file` : '; choose an SVG file, or paste one'}.`,
      );
    }
    let lines;
    try {
      const rough = pathLines(d, 1e6);
      const span = boxOf(rough).size || 1;
      lines = pathLines(d, (span * 0.02) / v.detail);
    } catch (error) {
      if (error instanceof PathProblem) throw new StepProblem(error.message);
      throw error;
    }
    if (lines.length === 0) throw new StepProblem('This path draws no line; it only moves the pen.');
    const { middle, size } = boxOf(lines);
    const scale = v.size / (size || 1);
    return curvesMesh(
      lines.map((l) => {
        const points: number[] = [];
        // SVG has y downwards.
        for (let i = 0; i < l.points.length; i += 2)
          points.push((l.points[i] - middle[0]) * scale, (middle[1] - l.points[i + 1]) * scale, 0);
        return { points, closed: l.closed };
      }),
    );
  },
});

function boxOf(lines: readonly { readonly points: readonly number[] }[]): { middle: [number, number]; size: number } {
  const side = [0, 1].map((k) => {
    let [low, high] = [Infinity, -Infinity];
    for (const l of lines)
      for (let i = k; i < l.points.length; i += 2)
        [low, high] = [Math.min(low, l.points[i]), Math.max(high, l.points[i])];
    return { middle: (low + high) / 2, size: high - low };
  });
  return { middle: [side[0].middle, side[1].middle], size: Math.max(side[0].size, side[1].size) };
}
