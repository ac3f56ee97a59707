/** Who asks for work. */
export interface Worker {
  readonly id: string;
  readonly name: string;
  readonly light: 'quick' | 'true';
  readonly threads: number;
  /** See MAKER. */
  readonly maker: string;
  /** Who let it in. */
  readonly by: string;
}

/** The worker beside the application, as others are told of it. */
export const HERE = { name: 'This machine', by: 'this machine' } as const;

/** Seconds until a worker that says nothing is taken for gone. */
export const leaseSeconds = () => Number(process.env.MAYPOLE_LEASE_SECONDS) || 45;
/** Times that a frame is tried by a worker that then falls silent or fails. */
export const TRIES = 3;
