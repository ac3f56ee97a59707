import { register } from 'tsx/esm/api';

register();
await import('./draw-worker.ts');
