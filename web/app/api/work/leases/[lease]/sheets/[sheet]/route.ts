import { open, stat } from 'node:fs/promises';
import { FRAME_IMAGES } from '@maypole/core/output/frame-image';
import { frameImageFault } from '@maypole/render/frame/check-frame-image';
import { database } from '@/server/data/db';
import { AppError } from '@/server/http/app-error';
import { route } from '@/server/http/route';
import { admitWorker } from '@/server/render/admit-worker';
import { leaseId, MAX_SHEET, frameImageParam } from '@/contract/renders';
import { leasedPart } from '@/server/render/queue';
import { assertDisk, frameImageStore } from '@/server/render/room';

const [PNG, EXR] = [0x89504e47, 0x762f3101];

/** Receives a finished frame image. */
export const PUT = route<{ lease: string; sheet: string }>(
  { who: 'edit', file: MAX_SHEET },
  async ({ request, person, params, file }) => {
    admitWorker(request, person);
    const sheet = frameImageParam.parse(params.sheet);
    const part = await leasedPart(database(), leaseId.parse(params.lease));
    if (!part.sheets.includes(sheet)) throw new AppError(422, `Nobody asked for the sheet “${sheet}” of this frame.`);
    const head = Buffer.alloc(64);
    const handle = await open(file);
    const { bytesRead } = await handle.read(head, 0, 64, 0).finally(() => handle.close());
    if (bytesRead < 64 || head.readUInt32BE(0) !== (FRAME_IMAGES[sheet].light ? EXR : PNG))
      throw new AppError(422, `This is not ${FRAME_IMAGES[sheet].light ? 'an OpenEXR' : 'a PNG'} picture.`);
    const fault = await frameImageFault(file, sheet, part.order);
    if (fault) throw new AppError(422, `The sheet “${sheet}” is not whole, or not as it was asked for. ${fault}`);
    await assertDisk((await stat(file)).size);
    return Response.json(await frameImageStore().take(part.fingerprint, sheet, file));
  },
);
