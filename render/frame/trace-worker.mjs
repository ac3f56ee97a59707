import { register } from 'tsx/esm/api';

register();
await import('./trace-worker.ts');
