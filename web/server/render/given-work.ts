import type { FrameOrder } from '@maypole/core/output/frame-order';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { PartWork } from '@maypole/render/work/source';

/** A frame as the database assigns it. */
export interface GivenRow extends Record<string, unknown> {
  readonly render_id: string;
  readonly index: number;
  readonly frame: number;
  readonly fingerprint: string;
  readonly frame_order: FrameOrder;
  readonly sheets: FrameImageName[];
}

/** The same as a worker takes it, under a lease. */
export function givenWork(row: GivenRow, lease: string): PartWork {
  const { render_id: render, index, frame, fingerprint, frame_order: order, sheets } = row;
  return { render, index, frame, fingerprint, order, sheets, lease };
}
