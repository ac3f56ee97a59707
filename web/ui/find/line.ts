import type { Findable } from '@maypole/core/find/search';

/** A result of the command field. */
export interface Line extends Findable {
  readonly id: string;
  readonly sort: string;
  readonly keys?: string;
  readonly run: () => void;
}
