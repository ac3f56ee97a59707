/** A rule of lines in the command field, with lines that follow it. */
export interface LineRule {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  readonly lines: readonly string[];
}

/** What a line may say. Every line here is held to be understood. */
export const LINE_RULES: readonly LineRule[] = [
  {
    id: 'thing-and-values',
    title: 'A thing and its values',
    help: 'Forms, steps, parts of a finish, lamps, effects and whatever else is declared, by their names or by words of the trade, with their values in any order.',
    lines: ['torus 6 4', 'twist 240 about z', 'displace water 100cm', 'grid 5 by 1 by 5'],
  },
  {
    id: 'named-values',
    title: 'Values by name, or in their order',
    help: 'A number without a name is the next one in the order of the card that takes its unit. A name before it means that one.',
    lines: ['struts 2.5mm joints 12.5mm', 'copies line 30 every 75cm', 'metal 100%, roughness 20%'],
  },
  {
    id: 'several',
    title: 'Several at once',
    help: 'Commas part a line. What has no thing of its own goes on with the one before; a new form is what the rest acts on. One undo takes all of it back.',
    lines: ['torus 6 4, 100 by 70, twist 240 about z, glow 10 light blue'],
  },
  {
    id: 'motion',
    title: 'From one number to another',
    help: 'An angle that comes round goes on turning; everything else goes there and back, and closes. “Wave” takes a sine; “twice” and “3 times” say how often.',
    lines: [
      'turn x 0 to 360',
      'pipe radius 0.2 to 0.4',
      'radius wave 0.2 to 0.4 twice',
      'shift y -1 to 1 wave 3 times',
    ],
  },
  {
    id: 'what-is-there',
    title: 'Values of what is there',
    help: 'The name of a value alone sets it: of the step used last, of the chosen ribbon, of the camera and the scene. “Off” after a name switches it off.',
    lines: ['focal length 25', 'camera elevation 0, azimuth 90', 'exposure 0.5', 'studio light off'],
  },
  {
    id: 'scene',
    title: 'Colours, lamps and the loop',
    help: 'Colours by their CSS names or as #rrggbb. Lamps stand above, below, left, right, in front or behind, or at three numbers. The loop takes a length and a rate.',
    lines: [
      'background #101418',
      'area light from above 2 x 2 m 300%',
      'ball light at 2 3 2',
      'bloom 30%',
      '10 s at 24',
    ],
  },
  {
    id: 'keeping',
    title: 'Lines that come back',
    help: 'The arrow up brings the last lines back. A name and an equals sign before a line keep it in this browser, to be found by that name.',
    lines: ['rim = glow 2 light blue, wires 2px white'],
  },
];

/** What may be typed into a value's field beside a number. */
export const FIELD_RULE: LineRule = {
  id: 'in-a-field',
  title: 'In a field',
  help: 'A field takes arithmetic and units, and motions as well. One of three axes takes all three at once, or one number for all. Enter goes on to the next value, Shift Enter back; on a value that is not being typed, Shift Enter opens its motion. A drag that begins downwards sets the fields it passes alike.',
  lines: ['0 to 360', 'wave 0.2 to 0.4 twice', 'round twice', '1 2 3', 'all 0.5'],
};
