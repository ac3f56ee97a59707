/** Radiance of an 18 % surface, the reference for stops. */
export const MIDDLE_GREY = 0.18;

/** Colours for brightness in stops from middle grey, each with its lower bound; the last is where white clips. */
export const EXPOSURE_BANDS: readonly { readonly from: number; readonly colour: string; readonly words: string }[] = [
  { from: -Infinity, colour: '#17132B', words: 'black' },
  { from: -5, colour: '#2E3A7C', words: '−5' },
  { from: -3, colour: '#2F7C93', words: '−3' },
  { from: -1, colour: '#7FA59A', words: '−1' },
  { from: -0.5, colour: '#B9BDB5', words: 'grey' },
  { from: 0.5, colour: '#D9C48A', words: '+½' },
  { from: 1.5, colour: '#E39A3C', words: '+1½' },
  { from: 2.4, colour: '#D9483B', words: 'white' },
  { from: 4, colour: '#FF2FB0', words: 'lost' },
];
