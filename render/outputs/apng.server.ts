import { encode, type Maker } from './maker';

/** APNG (W3C PNG, third edition), for ever round. */
export const apng: Maker = async (making) => {
  const { clear } = making.values as { clear: boolean };
  return [
    await encode(making, {
      eight: true,
      filter: `format=${clear ? 'rgba' : 'rgb24'}`,
      args: ['-c:v', 'apng', '-f', 'apng', '-plays', '0', '-pred', 'mixed'],
    }),
  ];
};
