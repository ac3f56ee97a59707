/** The processes of jobs where nothing is built: in tests. */
import { register } from 'tsx/esm/api';

register();
await import('./process.ts');
