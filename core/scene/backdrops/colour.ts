import { colour } from '../../declare/params';
import { defineBackdrop } from '../kind';

export const plainBackdrop = defineBackdrop({
  kind: 'colour',
  title: 'Backdrop',
  help: 'One colour behind everything, exactly as it is chosen.',
  icon: 'wallpaper',
  params: { colour: colour('Colour', '#CDD4D4', 'Colour behind everything.') },
  at: (v) => ({ type: 'colour', colour: v.colour }),
});
