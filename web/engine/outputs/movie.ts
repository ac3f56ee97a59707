import { frameRate } from '@maypole/core/time/loop';
import { BufferTarget, CanvasSource, canEncodeVideo, Output, type OutputFormat } from 'mediabunny';
import { DeliveryProblem, type Encoder } from './encoder';

/** Bits a second that keep smooth shading free of bands: about 0.2 bit a pixel. */
function bitrate(width: number, height: number, fps: number): number {
  return Math.round(Math.max(1_000_000, width * height * fps * 0.2));
}

/** Movies by the browser's own encoder. */
export function movie(codec: 'avc' | 'vp9', codecTitle: string, format: () => OutputFormat): Encoder {
  return {
    async open({ title, loop, width, height, canvas }) {
      if (!(await canEncodeVideo(codec, { width, height, bitrate: bitrate(width, height, 30) })))
        throw new DeliveryProblem(
          `This browser cannot make ${codecTitle} movies of ${width} × ${height} pixels; choose a smaller size or another kind of file.`,
        );
      const rate = frameRate(loop.fps);
      const fps = rate.num / rate.den;
      const output = new Output({ format: format(), target: new BufferTarget() });
      const source = new CanvasSource(canvas, { codec, bitrate: bitrate(width, height, fps), keyFrameInterval: 1 });
      output.addVideoTrack(source, { frameRate: fps });
      output.setMetadataTags({ title });
      await output.start();
      return {
        // Times are computed from the number, so that rounding never adds up.
        add: (_, index) => source.add((index * rate.den) / rate.num, rate.den / rate.num),
        async finish() {
          await output.finalize();
          return new Blob([(output.target as BufferTarget).buffer!], { type: await output.getMimeType() });
        },
        async cancel() {
          await output.cancel();
        },
      };
    },
  };
}
