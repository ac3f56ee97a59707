/// <reference lib="webworker" />
import { scope } from './worker-scope';
import { pictureFiles } from './picture-files';
import type { ViewFrame } from './frame';
import { Unpacker } from './pack';
import { Stage } from './stage';
import { DEVICE_GONE, type FromStage, type ToStage } from './stage-protocol';

const unpacker = new Unpacker();
let stage: Stage | null = null;
let canvas: OffscreenCanvas;
let frame: ViewFrame | null = null;

const tell = (message: FromStage, transfer: Transferable[] = []) => scope.postMessage(message, transfer);

// Sequentially, though some wait: draw requests are answered in order.
let before = Promise.resolve();
scope.onmessage = ({ data }: MessageEvent<ToStage>) => {
  before = before.then(() => take(data));
};

async function take(data: ToStage): Promise<void> {
  switch (data.type) {
    case 'begin':
      canvas = data.canvas;
      try {
        stage = await Stage.create(canvas, () => tell({ type: 'lost' }));
        tell({ type: 'ready', subframes: stage.subframes });
      } catch (error) {
        tell({ type: 'none', words: error instanceof Error ? error.message : String(error) });
      }
      return;
    case 'size':
      stage?.setSize(data.width, data.height);
      return;
    case 'sound':
      if (await stage!.sound()) tell({ type: 'drawn', id: data.id });
      else tell({ type: 'failed', id: data.id, message: DEVICE_GONE });
      return;
    case 'draw':
      try {
        if (data.frame) {
          frame = unpacker.unpack(data.frame);
          await pictureFiles(frame);
        }
        for (let n = data.first; n < data.last; n++) {
          await stage!.room();
          // In the same task as drawing: a resized canvas is empty.
          stage!.setCoarse(data.coarse);
          stage!.draw(frame!, n, data.of, n === data.last - 1);
        }
        // In the same task as drawing, before the canvas is handed on.
        const picture = data.copy ? canvas.transferToImageBitmap() : undefined;
        if (picture && stage!.lost) {
          picture.close();
          throw new Error(DEVICE_GONE);
        }
        // A still picture is awaited until it is in the canvas; intermediate ones need not be. Nor is one returned that
        // the page would have to wait for when reading it.
        if (picture || (data.of > 1 && data.last === data.of)) await stage!.done();
        tell({ type: 'drawn', id: data.id, ...(picture ? { picture } : {}) }, picture ? [picture] : []);
      } catch (error) {
        tell({ type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) });
      }
  }
}
