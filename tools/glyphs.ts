/**
 * Writes the glyph outlines of the form Text, from the open fonts that the application ships (SIL Open Font License):
 * `npx tsx tools/glyphs.ts`. Only needed when fonts or letters change.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';

const require = createRequire(import.meta.url);
const LETTERS = [
  ...Array.from({ length: 95 }, (_, i) => String.fromCharCode(32 + i)),
  ...Array.from({ length: 96 }, (_, i) => String.fromCharCode(160 + i)),
  ...'–—‘’“”…•€',
];

for (const [name, file] of [
  ['plain', '@fontsource/figtree/files/figtree-latin-700-normal.woff'],
  ['title', '@fontsource/bricolage-grotesque/files/bricolage-grotesque-latin-700-normal.woff'],
] as const) {
  const bytes = readFileSync(require.resolve(file));
  const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer);
  const round = (x: number) => Math.round((x * 1000) / font.unitsPerEm);
  const rows = LETTERS.flatMap((letter) => {
    const glyph = font.charToGlyph(letter);
    if (glyph.index === 0 && letter !== ' ') return [];
    const path = glyph.path.commands.map((c) => {
      if (c.type === 'Z') return 'Z';
      const points =
        c.type === 'M' || c.type === 'L'
          ? [c.x, c.y]
          : c.type === 'Q'
            ? [c.x1, c.y1, c.x, c.y]
            : [c.x1, c.y1, c.x2, c.y2, c.x, c.y];
      return `${c.type}${points.map(round).join(' ')}`;
    });
    return [`  ${JSON.stringify(letter)}: [${round(glyph.advanceWidth ?? 0)}, '${path.join('')}'],`];
  });
  const text = `import type { Font } from './font';

/**
 * Outlines of ${font.names.fontFamily?.en ?? name} Bold (SIL Open Font License 1.1), 1000 units to the em, y
 * up; made by tools/glyphs.ts.
 */
export const ${name}: Font = {
${rows.join('\n')}
};
`;
  writeFileSync(new URL(`../core/shape/glyphs/${name}.ts`, import.meta.url), text);
}
