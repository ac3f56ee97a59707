import { encode, type Exporter } from './exporter';

/** APNG (W3C PNG, third edition), looping endlessly. */
export const apng: Exporter = async (making) => {
  const { clear } = making.values as { clear: boolean };
  return [
    await encode(making, {
      eight: true,
      // Tagged as sRGB.
      filter: `format=${clear ? 'rgba' : 'rgb24'},setparams=range=pc:color_primaries=bt709:color_trc=iec61966-2-1:colorspace=gbr`,
      args: ['-c:v', 'apng', '-f', 'apng', '-plays', '0', '-pred', 'mixed'],
    }),
  ];
};
