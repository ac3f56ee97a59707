import { describe, expect, it } from 'vitest';
import { LIMITS } from '../declare/limits';
import { Dice } from '../fixtures/dice';
import { rounds } from '../fixtures/effort';
import { newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { readPiece, writePiece } from '../piece/read';
import { proveSeam } from '../seam/proof';
import { stepKinds } from '../steps/index';
import { finishParts } from '../finish/parts/index';
import { sceneListNames, sceneLists } from '../scene/index';
import { LINE_RULES } from '../guide/lines';
import { hexOf } from '../time/colours/css-colour';
import { exampleLine } from './example-line';
import { stemsOf } from '../find/search';
import { clausesOf, tokensOf } from './tokens';
import { understand } from './understand';

const ribbon = newRibbon('torus', 0, 'Ring');
const piece: Piece = { ...newPiece('Said'), ribbons: [ribbon] };
const say = (line: string, on: Piece = piece) => understand(line, { piece: on, ribbonId: ribbon.id, held: null });

describe('a line', () => {
  it.each([
    ['torus 6 4, 100 by 70', 'Adds the ribbon Torus: ring radius 6 m, pipe radius 4 m, ring faces 100, pipe faces 70'],
    ['twist 240 about z', 'Adds Twist to Ring: angle 240°, axis Z'],
    ['about z 240 twist', 'Adds Twist to Ring: axis Z, angle 240°'],
    ['displace water 100cm', 'Adds Displace to Ring: noise Water light, height 1 m'],
    ['struts 2.5mm joints 12.5mm', 'Adds Struts to Ring: rod radius 0.0025 m, joint radius 0.0125 m'],
    ['copies line 30 every 75cm', 'Adds Line to Ring: count 30 copies, offset 0.75, 0, 0 m'],
    ['glow 10 light blue', 'Adds Glow of Ring: strength 10×, colour #add8e6'],
    ['turn x 0 to 360', 'Adds Place to Ring: turn x +360° a loop, y 0°, z 0°'],
    ['radius wave 0.2 to 0.4 twice', 'Sets Torus of Ring: ring radius wave 0.2…0.4 m, 2 times'],
    ['focal length 25', 'Sets Camera of Scene: focal length 25 mm'],
    ['bloom 30%', 'Adds Bloom: amount 30%'],
    ['10 s at 24', 'Sets the loop: 240 frames at 24 a second'],
    ['24 fps', 'Sets the loop: 96 frames at 24 a second'],
    ['background #101418', 'Sets Backdrop: colour #101418'],
    ['area light from above 2 x 2 m 300%', 'Adds Area light: place 0, 4, 0.5 m, width 2 m, height 2 m, strength 300%'],
    ['box 2 x 1 x 0,5 m', 'Adds the ribbon Box: size 2, 1, 0.5 m'],
    ['cube 3 m', 'Adds the ribbon Box: size 3, 3, 3 m'],
    ['spin about y twice', 'Adds Spin to Ring: about Y, turns 2 turns'],
    ['shift y -1 to 1 wave 3 times', 'Adds Place to Ring: shift x 0 m, y wave -1…1 m, 3 times, z 0 m'],
    ['metal 100%, roughness 20%', 'Sets Metal of Ring: metalness 100%. Sets Finish of Ring: roughness 20%'],
    ['wires 2px white', 'Adds Wires of Ring: width 2 px, colour #ffffff'],
    ['grid 3 by 3 by 3', 'Adds Grid to Ring: columns 3 copies, layers 3 copies, rows 3 copies'],
    ['place turn y wander -40 to 40 twice', 'Adds Place to Ring: turn x 0°, y wander -40…40°, rate 2, z 0°'],
    ['mirror x', 'Adds Mirror to Ring: across X'],
    ['sky shade on', 'Adds Sky: shade on'],
    ['studio light shade on', 'Sets Studio light of Scene: shade on'],
    ['struts keep faces off', 'Adds Struts to Ring: keep faces off'],
    ['line 30 every z 0.75', 'Adds Line to Ring: count 30 copies, offset 0, 0, 0.75 m'],
    ['vary turn to x -45 to 45', 'Adds Vary to Ring: to x wave -45…45°, y 0°, z 0°, vary Turn'],
    ['geodesic 0.5 3', 'Adds the ribbon Geodesic sphere: radius 0.5 m, edge parts 3'],
    ['twist 90 pivot turn z 0 to 360', 'Adds Twist to Ring: angle 90°, pivot turn x 0°, y 0°, z +360° a loop'],
    ['rods glow 10 #1e7bff', 'Adds Rods glow of Ring: strength 10×, colour #1e7bff'],
    ['studio off', 'Switches Studio light of Scene off'],
    ['camera focal length 25 elevation 0 azimuth 90', 'Sets Camera of Scene: focal length 25 mm, above 0°, round 90°'],
    ['ball light at 2 3 2', 'Adds Ball light: place 2, 3, 2 m'],
    [
      'torus 1 0.3, ring faces 200',
      'Adds the ribbon Torus: ring radius 1 m, pipe radius 0.3 m. Sets Torus of Torus: ring faces 200',
    ],
  ])('“%s”: %s', (line, words) => {
    const said = say(line);
    expect(said.unclear).toEqual([]);
    expect(said.hasValues).toBe(true);
    expect(said.words.join('. ')).toBe(words);
    expect(readPiece(writePiece(said.after.piece)).ok).toBe(true);
    // Nothing is done by understanding.
    expect(piece.ribbons).toHaveLength(1);
  });

  it('keeps the axes of a way that somebody has set', () => {
    const line = newStep('repeat-line', { way: [5, 0, 0] });
    const on = { ...piece, ribbons: [{ ...ribbon, steps: [...ribbon.steps, line] }] };
    const { after } = understand('offset y 2', { piece: on, ribbonId: ribbon.id, held: line.id });
    expect(after.piece.ribbons[0].steps[1].values.way).toEqual([5, 2, 0]);
  });

  it('goes on with the ribbon that it added', () => {
    const { after, open } = say('sphere 2, twist 90, neon pink 5');
    const added = after.piece.ribbons[1];
    expect(after.ribbonId).toBe(added.id);
    expect(added.steps.map((s) => s.kind)).toEqual(['sphere', 'twist']);
    expect(added.finishes[0].parts.find((p) => p.kind === 'glow')!.values).toMatchObject({
      colour: '#ffc0cb',
      strength: 5,
    });
    expect(open).toContain(`${added.id}/finish`);
    expect(after.piece.ribbons[0]).toBe(piece.ribbons[0]);
  });

  it('says what it does not understand, where, and what is nearest', () => {
    expect(say('twist 240 grap').unclear).toMatchObject([{ text: 'grap', from: 10, to: 14 }]);
    expect(say('twist 240 abuot z').unclear).toMatchObject([{ text: 'abuot', guess: 'about' }]);
    expect(say('twsit 240').unclear[0]).toMatchObject({ text: 'twsit', guess: 'Twist' });
    expect(say('torus -1').unclear).toMatchObject([{ why: 'Ring radius goes from 0 to 1000 m.' }]);
    expect(say('torus 3 kg').unclear).toHaveLength(1);
    expect(say('torus, ring faces 20.5').unclear[0].why).toBe('Ring faces is a whole number.');
    for (const line of ['metal off', 'torus off', 'camera off', 'backdrop off'])
      expect(say(line).unclear[0].why, line).toMatch(/always on/);
    expect(say('glow off').unclear[0].why).toBe('There is no Glow that is on.');
    expect(say('500 fps').unclear[0].why).toMatch(/frames a second/);
    expect(understand('twist 240', { piece, ribbonId: null, held: null }).unclear[0].why).toMatch(/Choose a ribbon/);
  });

  it('says nothing of words that are only looked for', () => {
    for (const line of ['', 'cube', 'export a movie', 'go back', 'make a donut', 'dark mode', 'gold'])
      expect(say(line).hasValues, line).toBe(false);
  });

  it('gives angles that come round a closed motion, and others one there and back', () => {
    for (const line of [
      'turn y 0 to 720',
      'pipe radius 0.1 to 0.3',
      'twist -90 to 90 thrice',
      'shift x wave -1 to 1',
    ]) {
      const { after, unclear } = say(line);
      expect(unclear).toEqual([]);
      expect(proveSeam(after.piece), line).toMatchObject({ closed: true, moving: 1 });
    }
  });
});

describe('everything declared', () => {
  const kinds = [
    ...stepKinds,
    ...finishParts.all,
    ...sceneListNames.filter((l) => l !== 'cameras').flatMap((l) => sceneLists[l].kinds.all),
  ];
  const rows = kinds.flatMap((k) =>
    Object.entries(k.params)
      .filter(([name, p]) => {
        // A title that two values of a kind have means the first.
        const same = Object.entries(k.params).find(([, o]) => stemsOf(o.title) === stemsOf(p.title));
        return p.type === 'number' && same![0] === name && !p.sparse && !p.seeds;
      })
      .map(([name, p]) => ({ kind: k, name, param: p as Extract<typeof p, { type: 'number' }> })),
  );

  // A plane has few values whose names others have.
  const plain: Piece = { ...piece, ribbons: [{ ...ribbon, steps: [newStep('plane')] }] };

  it('can be said: each number by its title', () => {
    expect(rows.length).toBeGreaterThan(250);
    const lost = rows.filter(({ kind, name, param }) => {
      const value = param.integer
        ? Math.round((param.soft[0] + param.soft[1]) / 2)
        : (param.soft[0] + param.soft[1]) / 2;
      // A title with commas would be several parts.
      const thing = kind.title.includes(',') ? 'color grading' : kind.title;
      const { after, unclear } = say(`${thing} ${param.title} ${value}`, plain);
      const is = JSON.stringify(after.piece).includes(`"${name}":${JSON.stringify(value)}`);
      return !is || unclear.length > 0;
    });
    expect(lost.map(({ kind, param }) => `${kind.title} ${param.title}`)).toEqual([]);
  });

  it('has an example that does what it says', () => {
    const examples = kinds.map(exampleLine).filter((l) => l !== null);
    expect(examples.length).toBeGreaterThan(70);
    expect(examples.filter((l) => say(l, plain).unclear.length > 0 || !say(l, plain).hasValues)).toEqual([]);
  });

  it('follows the rules that the guide shows', () => {
    for (const line of LINE_RULES.flatMap((r) => r.lines)) {
      const { unclear, hasValues } = say(line.replace(/^.*= /, ''));
      expect([unclear, hasValues], line).toEqual([[], true]);
    }
  });

  it('says so where a piece is full, and changes nothing', () => {
    const many = Array.from({ length: LIMITS.ribbons }, (_, i) => ({ ...newRibbon('torus', i), id: `r${i}` }));
    const steps = [newStep('torus'), ...Array.from({ length: LIMITS.stepsOfRibbon - 1 }, () => newStep('twist'))];
    const full: Piece = { ...piece, ribbons: many.map((r, i) => (i === 0 ? { ...r, steps } : r)) };
    for (const line of ['torus 2', 'twist 90']) {
      const { after, unclear } = understand(line, { piece: full, ribbonId: 'r0', held: null });
      expect(unclear[0].why, line).toMatch(/all ribbons it can have|full of steps/);
      expect(after.piece, line).toEqual(full);
    }
  });

  it('leaves a sound piece, whatever is typed', () => {
    const dice = new Dice(20_261_202);
    const words = [
      ...kinds.flatMap((k) => [k.title, ...Object.values(k.params).map((p) => p.title)]),
      ...['to', 'by', 'x', 'from', 'above', 'wave', 'twice', 'no', 'about', 'y', 'z', 'red', '#fff', ',', '%', 'every'],
    ];
    for (let round = 0; round < rounds(300, 3000); round++) {
      const line = Array.from({ length: dice.whole(1, 9) }, () =>
        dice.chance(0.4)
          ? `${dice.whole(-5, 400) / dice.of([1, 10, 100])}${dice.of(['', ' m', 'cm', '%', '°', 's', 'px'])}`
          : dice.of(words),
      ).join(' ');
      const { after } = say(line);
      const read = readPiece(writePiece(after.piece));
      expect(read.ok ? '' : `${line}: ${read.message}`).toBe('');
    }
  });
});

describe('words, numbers and colours', () => {
  it('are told apart, with where they stand', () => {
    const tokens = tokensOf('box 2x1 0,5 m #fff, 30 % red');
    expect(tokens.map((t) => [t.type, t.text, t.unit])).toEqual([
      ['word', 'box', ''],
      ['number', '2', ''],
      ['word', 'x', ''],
      ['number', '1', ''],
      ['number', '0,5', 'm'],
      ['colour', '#fff', ''],
      ['comma', ',', ''],
      ['number', '30', '%'],
      ['word', 'red', ''],
    ]);
    expect(clausesOf(tokens)).toHaveLength(2);
    expect('box 2x1 0,5 m #fff, 30 % red'.slice(tokens[4].from, tokens[4].to)).toBe('0,5 m');
  });
  // CSS Color Module Level 4, section 6.1: named colours.
  it.each([
    ['light blue', '#add8e6'],
    ['RebeccaPurple', '#663399'],
    ['#ABC', '#aabbcc'],
    ['dark sea green', '#8fbc8f'],
    ['fa8072', '#fa8072'],
    ['hsl(0 100% 50%)', '#ff0000'],
    ['rgb(0 128 255 / 50%)', '#0080ff'],
    // Section 9.5: oklch of a colour of sRGB, and one outside of it, which is brought in.
    ['oklch(62.796% 0.25768 29.234)', '#ff0000'],
    ['nonsense', null],
  ])('%s is %s', (name, hex) => expect(hexOf(name)).toBe(hex));
});

describe('a step that is used', () => {
  it('is not meant by a word that only begins like one of its values', () => {
    const steps = [newStep('torus'), newStep('displace')];
    const bumpy: Piece = { ...piece, ribbons: [{ ...ribbon, steps }] };
    expect(say('turn y 0 to 360', bumpy).words).toEqual(['Adds Place to Ring: turn x 0°, y +360° a loop, z 0°']);
  });
  it('has its values before those of others', () => {
    const steps = [newStep('torus'), newStep('twist', { angle: 10 }), newStep('bend', { angle: 20 })];
    const two: Piece = { ...piece, ribbons: [{ ...ribbon, steps }] };
    const by = (held: string | null) =>
      understand('angle 77', { piece: two, ribbonId: ribbon.id, held }).after.piece.ribbons[0].steps.map(
        (s) => s.values.angle,
      );
    expect(by(null)).toEqual([undefined, 77, 20]);
    expect(by(steps[2].id)).toEqual([undefined, 10, 77]);
  });
});
