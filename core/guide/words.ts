/** A word of Maypole, explained in a sentence or two. */
export interface Word {
  readonly word: string;
  readonly text: string;
}

/** The words that appear on the screen, in alphabetical order. */
export const words: readonly Word[] = [
  {
    word: 'Backdrop',
    text: 'What is seen behind all forms: a colour, a gradient, a picture, the light round about, or nothing.',
  },
  {
    word: 'Closed',
    text: 'The frame after the last one is frame 0 again, in place and in speed: nobody sees where the loop begins.',
  },
  {
    word: 'Copies',
    text: 'Many placements of one form, made by a repeat. They cost little, and each can differ by Vary.',
  },
  { word: 'Detail', text: 'Draft has fewer faces and answers faster; final is what is delivered.' },
  { word: 'Draft', text: 'The form with fewer faces, for working. Outputs use final detail.' },
  {
    word: 'Easing',
    text: 'How a value goes from one key to the next: evenly, slowly at the ends, or along a curve you pull.',
  },
  { word: 'Field', text: 'A value at every place of space, such as a noise, that steps read where their points are.' },
  {
    word: 'Finish',
    text: 'What a surface is made of: base, metal, glass, coat, film, cloth, glow and more, switched on part by part.',
  },
  { word: 'Form', text: 'The first step of a ribbon: the body that all other steps shape.' },
  {
    word: 'Frame',
    text: 'One picture of the loop. A loop of 100 frames has the frames 0 to 99; frame 100 is frame 0.',
  },
  {
    word: 'Gap',
    text: 'Something that is not the same after one loop, so that the eye sees a jolt. The seam check names it and offers repairs.',
  },
  { word: 'Key', text: 'A value at a moment of the loop. Between keys the value goes along a curve.' },
  { word: 'Lane', text: 'A row of the round with one value’s course, its keys, and the handles to change it.' },
  { word: 'Late', text: 'Copies that do what the others do, a share of the loop later.' },
  {
    word: 'Loop',
    text: 'The time after which everything begins again: a number of frames at a number of frames a second.',
  },
  { word: 'Mark', text: 'A name given to a save, so that it is kept for good.' },
  {
    word: 'Motion',
    text: 'How a value moves round the loop: by keys, as a wave, wandering, in stairs, by a formula, or following another value.',
  },
  {
    word: 'Noise',
    text: 'A smooth pattern of chance. It moves along a closed way, so that it is the same again after one loop.',
  },
  { word: 'Octaves', text: 'Layers of a noise, each finer and weaker than the one before.' },
  { word: 'Output', text: 'One kind of file that is made of the loop: a movie, pictures, geometry, a web page.' },
  { word: 'Pair', text: 'Two ribbons that share all values that were not changed on purpose.' },
  { word: 'Parcel', text: 'A piece as one file, with the files it needs inside.' },
  {
    word: 'Pattern',
    text: 'Something that changes a value of a finish from place to place: a noise, a picture, rings, a ramp.',
  },
  { word: 'Phase', text: 'How far into its cycle a motion is when the loop begins.' },
  { word: 'Piece', text: 'One loop, with everything that is in it.' },
  { word: 'Quick light', text: 'The picture drawn by the graphics card, at once.' },
  {
    word: 'Region',
    text: 'The part of a form that a step works on: a ball, a box, what faces a way, what is near another form.',
  },
  {
    word: 'Repeat',
    text: 'A step that makes copies: in a line, in rings, on a grid, along a path, scattered, or as a stream.',
  },
  { word: 'Ribbon', text: 'A form and the steps that shape it, with its finish. A piece has any number of them.' },
  { word: 'Round', text: 'The time of the loop at the foot of the screen, from frame 0 to frame 0.' },
  {
    word: 'Save',
    text: 'A version of the piece that is kept. Every edit is saved by itself; older saves thin out with time.',
  },
  {
    word: 'Scene',
    text: 'Everything around the forms: cameras, lights, backdrop, ground, air, and effects on the picture.',
  },
  { word: 'Seam', text: 'Where the loop meets itself: frame 0 and the frame after the last one.' },
  { word: 'Seed', text: 'A number that chance is drawn from: the same seed gives the same result on every machine.' },
  { word: 'Sheet', text: 'Many small loops, each a variation of the piece, from which some are kept.' },
  { word: 'Shelf', text: 'The page with all pieces.' },
  {
    word: 'Step',
    text: 'One thing done to a form: twisted, repeated, smoothed, displaced by a noise. Steps act in their order.',
  },
  { word: 'Sub-frames', text: 'Moments within one frame whose pictures are averaged, for blur along the movement.' },
  { word: 'Take', text: 'A version of the piece kept by name beside it.' },
  {
    word: 'True light',
    text: 'The picture by path tracing: every ray is followed. It takes longer and is the same on every machine.',
  },
  { word: 'Turns', text: 'How many times a motion goes round in one loop. Whole numbers close.' },
  { word: 'Wander', text: 'A motion by chance that comes back to where it began.' },
  { word: 'Wave', text: 'A motion that swings between two values a number of times a loop.' },
];

const byWord = new Map(words.map((w) => [w.word.toLowerCase(), w]));

/** The explanation of a word; undefined if it has none. */
export const explained = (word: string): string | undefined => byWord.get(word.toLowerCase())?.text;

/** Other forms in which a word appears. */
const FORMS: Readonly<Record<string, string>> = {
  copy: 'copies',
  'sub-frame': 'sub-frames',
  turn: 'turns',
  octave: 'octaves',
  lag: 'late',
  shelves: 'shelf',
};

/**
 * The explained words in a text, in order, each once: plurals too, and words of two parts where both stand together.
 */
export function wordsIn(text: string): Word[] {
  const parts = text.toLowerCase().match(/[\p{L}-]+/gu) ?? [];
  const found: Word[] = [];
  for (let i = 0; i < parts.length; i++) {
    const two = byWord.get(`${parts[i]} ${parts[i + 1] ?? ''}`);
    const one = parts[i];
    const word = two ?? byWord.get(one) ?? byWord.get(one.replace(/s$/, '')) ?? byWord.get(FORMS[one] ?? '');
    if (two) i++;
    if (word && !found.includes(word)) found.push(word);
  }
  return found;
}
