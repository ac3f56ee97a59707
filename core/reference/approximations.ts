/** What the picture cannot show as it is, for the reference: each a sentence on what is left out, and by how much where it is known. */
export const APPROXIMATIONS: readonly string[] = [
  'Light does not go from form to form. What shines is seen shining and spills by bloom, and lights ' +
    'neither other forms nor the air; a lamp beside it does.',
  'Glass bends what is behind it once, by its refractive index and thickness, and shows no other glass in itself.',
  'Mirrors and coats show the surroundings and lamps and not other forms; a shadow floor that reflects is the exception.',
  'Glass and veils throw no shadow.',
  'Lit air scatters light once. Where several forms are see-through, it is drawn before the first that is not.',
  'A thin film is worked out for red, green and blue; against Airy’s sum over the CIE 1931 observer it is ' +
    'within a tenth for films of 150 to 400 nm on glass, seen straight on.',
  'The edge of an area light’s shadow is thrown from as many of its points as there are sub-frames.',
  'Copies of endless forms, and endless forms that steps other than Place and Spin have worked on, are ' +
    'faces on a grid, as fine as their cells.',
];
