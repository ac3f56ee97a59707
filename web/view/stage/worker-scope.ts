/** The global scope of a worker: what is compiled for a page as well takes `self` for a window. */
export const scope = self as unknown as DedicatedWorkerGlobalScope;
