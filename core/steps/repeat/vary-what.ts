/** What may differ from copy to copy. */
export const WHAT = [
  { value: 'shift', title: 'Shift' },
  { value: 'turn', title: 'Turn' },
  { value: 'size', title: 'Size' },
  { value: 'stretch', title: 'Size per axis' },
  { value: 'late', title: 'Time' },
  { value: 'colour', title: 'Colour' },
  { value: 'roughness', title: 'Roughness' },
  { value: 'metalness', title: 'Metalness' },
  { value: 'shown', title: 'Share shown' },
  { value: 'source', title: 'Which source' },
] as const;
export type What = (typeof WHAT)[number]['value'];
