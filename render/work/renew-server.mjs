import { register } from 'tsx/esm/api';

register();
await import('./renew-server.ts');
