/** What a text in JSON would become, told without making it. */
export interface JsonShape {
  /** Brackets within brackets, at most. */
  readonly depth: number;
  /** Values, counted by what parts them. */
  readonly values: number;
}

const QUOTE = 0x22;
const BACKSLASH = 0x5c;

/** Looks over a text in JSON once; what is no JSON has a shape, too. */
export function jsonShape(text: string): JsonShape {
  let [depth, deepest, values] = [0, 0, 1];
  for (let i = 0; i < text.length; i++) {
    switch (text.charCodeAt(i)) {
      case QUOTE:
        // To the end of the text in quotes; what stands behind a backslash does not end it.
        for (;;) {
          i = text.indexOf('"', i + 1);
          if (i < 0) return { depth: deepest, values };
          let strokes = 0;
          while (text.charCodeAt(i - 1 - strokes) === BACKSLASH) strokes++;
          if (strokes % 2 === 0) break;
        }
        break;
      case 0x5b: // [
      case 0x7b: // {
        if (++depth > deepest) deepest = depth;
        values++;
        break;
      case 0x5d: // ]
      case 0x7d: // }
        depth--;
        break;
      case 0x2c: // ,
        values++;
    }
  }
  return { depth: deepest, values };
}

/** Why a text is more than is read; undefined where it is not. */
export function jsonTooLarge(text: string, most: JsonShape): string | undefined {
  const { depth, values } = jsonShape(text);
  if (depth > most.depth) return `it has brackets ${depth} deep, and ${most.depth} is the most`;
  if (values > most.values) return `it has ${values} values, and ${most.values} is the most`;
  return undefined;
}
