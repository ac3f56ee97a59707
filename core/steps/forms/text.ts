import { choice, number, text as textParam } from '../../declare/params';
import { curvesMesh } from '../../shape/curves/curves';
import { pathLines, type PlaneLine } from '../../shape/curves/svg-path';
import { plain } from '../../shape/glyphs/plain';
import { title } from '../../shape/glyphs/title';
import { brief, defineStep, StepProblem } from '../step';

const FONTS = { plain, title };
const known = new Map<string, PlaneLine[]>();

function glyph(font: keyof typeof FONTS, letter: string, tolerance: number): PlaneLine[] {
  const key = `${font}/${letter}/${tolerance}`;
  let lines = known.get(key);
  if (!lines) known.set(key, (lines = pathLines(FONTS[font][letter][1], tolerance)));
  return lines;
}

/** Letters as outlines, upright and facing front. */
export const text = defineStep({
  kind: 'text',
  title: 'Text',
  help: 'Letters as outlines, to extrude, sweep along or draw as wire.',
  icon: 'text',
  group: 'form',
  params: {
    text: textParam('Text', 'Loop', 'What it says; a new line begins with Enter.', { max: 300, lines: 2 }),
    font: choice(
      'Font',
      'title',
      [
        { value: 'title', title: 'Title' },
        { value: 'plain', title: 'Plain' },
      ],
      'The typeface.',
    ),
    size: number('Size', 1, 'Height of a line.', { unit: 'm', min: 0.001, max: 1000, soft: [0.1, 3] }),
    spacing: number('Spacing', 0, 'More room between letters, or less.', {
      unit: '%',
      min: -90,
      max: 500,
      soft: [-20, 100],
      step: 1,
    }),
    lines: number('Line height', 110, 'From line to line, as a share of the size.', {
      unit: '%',
      min: 10,
      max: 500,
      soft: [80, 200],
      step: 1,
    }),
    align: choice(
      'Align',
      'middle',
      [
        { value: 'middle', title: 'Middle' },
        { value: 'left', title: 'Left' },
        { value: 'right', title: 'Right' },
      ],
      'How lines are aligned.',
    ),
    detail: number('Detail', 50, 'How finely curves are drawn.', {
      unit: '%',
      min: 1,
      max: 100,
      soft: [1, 100],
      step: 1,
      moves: false,
    }),
  },
  summary: (v) => `“${v.text.split('\n')[0].slice(0, 18)}” · ${brief(v.size)} m`,
  evaluate(v) {
    const font = FONTS[v.font];
    const missing = [...v.text].find((l) => l !== '\n' && !font[l]);
    if (missing)
      throw new StepProblem(
        `The letter “${missing}” is not in this font; it has those of Western European languages. Leave it out or write another.`,
      );
    const unit = v.size / 1000;
    const tolerance = 12 / v.detail;
    const rows = v.text.split('\n');
    const out: { points: number[]; closed: boolean }[] = [];
    rows.forEach((row, r) => {
      const gap = v.spacing * 10;
      const width = [...row].reduce((sum, l) => sum + font[l][0] + gap, -gap);
      let x = v.align === 'left' ? 0 : v.align === 'right' ? -width : -width / 2;
      // The origin is at half the cap height of the whole block.
      const y = ((rows.length - 1) / 2 - r) * v.lines * 10 - 350;
      for (const letter of row) {
        for (const line of glyph(v.font, letter, tolerance)) {
          const points: number[] = [];
          for (let i = 0; i < line.points.length; i += 2)
            points.push((x + line.points[i]) * unit, (y + line.points[i + 1]) * unit, 0);
          out.push({ points, closed: line.closed });
        }
        x += font[letter][0] + gap;
      }
    });
    return curvesMesh(out);
  },
});
