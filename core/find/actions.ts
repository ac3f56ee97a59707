/** An action of the editor that a word finds; the interface has a function for each. */
export interface Action {
  readonly title: string;
  readonly help: string;
  readonly group: keyof typeof ACTION_GROUPS;
  /** The default shortcut, as `chordOf` writes it. */
  readonly keys?: string;
}

export const ACTION_GROUPS = {
  time: 'Time',
  edit: 'Edit',
  ribbons: 'Ribbons and steps',
  view: 'View',
  rooms: 'Rooms',
} as const;

const actions = <const A extends Record<string, Action>>(all: A): A => all;

export const ACTIONS = actions({
  play: { title: 'Play or pause', help: 'Plays the loop round and round.', keys: 'Space', group: 'time' },
  'go-seam': { title: 'Go to the seam', help: 'Shows frame 0.', keys: 'Home', group: 'time' },
  'step-on': { title: 'Next frame', help: 'Shows the frame after this one.', keys: '→', group: 'time' },
  'step-back': { title: 'Frame before', help: 'Shows the frame before this one.', keys: '←', group: 'time' },
  'far-on': { title: 'Ten frames on', help: 'Shows the tenth frame after this one.', keys: 'Shift →', group: 'time' },
  'far-back': { title: 'Ten frames back', help: 'Shows the tenth frame before.', keys: 'Shift ←', group: 'time' },
  undo: { title: 'Undo', help: 'Takes the last edit back.', keys: 'Ctrl Z', group: 'edit' },
  redo: { title: 'Redo', help: 'Makes the edit again that was taken back.', keys: 'Ctrl Shift Z', group: 'edit' },
  find: {
    title: 'Find and do',
    help: 'Every action, step, value and piece by what it does.',
    keys: 'Ctrl K',
    group: 'edit',
  },
  save: {
    title: 'Save now',
    help: 'Saves at once; otherwise every edit is saved a moment later.',
    keys: 'Ctrl S',
    group: 'edit',
  },
  'save-file': {
    title: 'Save the piece as a file',
    help: 'Downloads the piece as a document that Maypole opens anywhere; files it uses are inside.',
    group: 'edit',
  },
  'rename-piece': { title: 'Rename the piece', help: 'Puts the cursor into its name.', group: 'edit' },
  loop: { title: 'Length and rate of the loop', help: 'Frames, seconds and frames a second.', group: 'time' },
  'rename-ribbon': {
    title: 'Rename the ribbon',
    help: 'Puts the cursor into the name of the chosen one.',
    group: 'ribbons',
  },
  'add-step': {
    title: 'Add a step',
    help: 'Opens the list of steps for the chosen ribbon.',
    keys: 'A',
    group: 'ribbons',
  },
  'next-ribbon': { title: 'Next ribbon', help: 'Chooses the ribbon after this one.', keys: 'N', group: 'ribbons' },
  'ribbon-before': {
    title: 'Ribbon before',
    help: 'Chooses the ribbon before this one.',
    keys: 'Shift N',
    group: 'ribbons',
  },
  'duplicate-ribbon': {
    title: 'Duplicate ribbon',
    help: 'A copy of the chosen ribbon that goes its own way.',
    keys: 'Ctrl D',
    group: 'ribbons',
  },
  pair: {
    title: 'Make a pair',
    help: 'A second ribbon that goes along with the chosen one.',
    keys: 'P',
    group: 'ribbons',
  },
  'hide-ribbon': {
    title: 'Show or hide ribbon',
    help: 'Switches the chosen ribbon off, or on again.',
    keys: 'I',
    group: 'ribbons',
  },
  'remove-ribbon': {
    title: 'Remove ribbon',
    help: 'Takes the chosen ribbon out of the piece.',
    keys: 'Delete',
    group: 'ribbons',
  },
  'switch-step': {
    title: 'Switch step off or on',
    help: 'The step that was used last, with its handles in the picture, stops acting, or acts again.',
    keys: 'O',
    group: 'ribbons',
  },
  throw: {
    title: 'Another throw',
    help: 'Other seeds for every step of the chosen ribbon.',
    keys: 'J',
    group: 'ribbons',
  },
  'frame-all': {
    title: 'Frame all',
    help: 'Moves the camera so that everything is in the picture.',
    keys: 'C',
    group: 'view',
  },
  'quick-light': { title: 'Quick light', help: 'The graphics card draws.', keys: 'Shift T', group: 'view' },
  'true-light': {
    title: 'True light',
    help: 'Every ray is followed: light that bounces, glass in glass, soft shadow.',
    keys: 'T',
    group: 'view',
  },
  'true-settings': {
    title: 'True light settings',
    help: 'Samples, error, bounces and denoising of the picture in true light.',
    group: 'view',
  },
  'fine-picture': {
    title: 'Finest picture',
    help: 'Averages 1024 sub-frames while the picture stands still, or again as many as it needs.',
    group: 'view',
  },
  detail: { title: 'Draft or final detail', help: 'Switches between fewer and all faces.', keys: 'Q', group: 'view' },
  'show-shaded': {
    title: 'Show shaded',
    help: 'Finishes and light, as it will be delivered.',
    keys: '1',
    group: 'view',
  },
  'show-edges': { title: 'Show edges', help: 'The edges of all faces.', keys: '2', group: 'view' },
  'show-clay': { title: 'Show clay', help: 'Every form in one plain finish.', keys: '3', group: 'view' },
  dusk: { title: 'Dusk or paper', help: 'A dark interface, or a light one.', group: 'view' },
  sheet: {
    title: 'Sheet of variations',
    help: 'Many small loops, each the piece with other values.',
    keys: 'V',
    group: 'rooms',
  },
  history: {
    title: 'History',
    help: 'Earlier saves and takes, looked at and brought back whole or in part.',
    keys: 'H',
    group: 'rooms',
  },
  compare: {
    title: 'Compare',
    help: 'The piece as it is now with a save, a take or another piece: side by side, wiped, or what differs.',
    keys: 'M',
    group: 'rooms',
  },
  scene: {
    title: 'Scene',
    help: 'Cameras, lights, backdrop, ground, air and effects on the picture.',
    keys: 'S',
    group: 'rooms',
  },
  seam: {
    title: 'Seam check',
    help: 'Says whether the loop closes, and mends what does not.',
    keys: 'E',
    group: 'rooms',
  },
  deliver: { title: 'Deliver', help: 'Makes movies, pictures and geometry of the loop.', keys: 'D', group: 'rooms' },
  'copy-link': {
    title: 'Copy a link to look at',
    help: 'A link that opens the piece for looking and trying; nothing that is changed there is kept.',
    group: 'rooms',
  },
  shelf: { title: 'Shelf', help: 'All pieces.', group: 'rooms' },
  renders: {
    title: 'Renders and machines',
    help: 'The queue, who works on it, and keys for more machines.',
    group: 'rooms',
  },
  guide: {
    title: 'Guide',
    help: 'Short walks through Maypole, and every step with an example that plays.',
    group: 'rooms',
  },
  shortcuts: { title: 'Shortcuts', help: 'All keys on one page; each can be changed.', keys: '?', group: 'rooms' },
  explain: {
    title: 'What is this?',
    help: 'Explains what the pointer or the keyboard is on, and the words that stand there.',
    keys: 'W',
    group: 'rooms',
  },
  reference: {
    title: 'Check this machine',
    help: 'Draws what is known and compares it, on this machine.',
    group: 'rooms',
  },
});
export type ActionId = keyof typeof ACTIONS;

export const actionIds = Object.keys(ACTIONS) as ActionId[];
export const actionOf = (id: ActionId): Action => ACTIONS[id];
