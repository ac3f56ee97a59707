import { colour } from '../../declare/params';
import { defineBackdrop } from '../kind';

export const clearBackdrop = defineBackdrop({
  kind: 'clear',
  title: 'Transparent',
  help: 'No backdrop: files with alpha are transparent there; the editor shows a colour instead.',
  icon: 'M4 4h8v8H4zM12 12h8v8h-8z',
  params: {
    colour: colour('Shown before', '#CDD6D4', 'What the editor shows, and files without alpha.'),
  },
  at: (v) => ({ type: 'colour', colour: v.colour, clear: true }),
});
