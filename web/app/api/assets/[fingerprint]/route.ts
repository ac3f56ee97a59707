import { loadAsset } from '@/server/pieces/assets';
import { fingerprint } from '@/contract/pieces';
import { database } from '@/server/data/db';
import { route } from '@/server/http/route';

/** A kept file. It is named by its SHA-256, so browsers may cache it for ever. */
export const GET = route<{ fingerprint: string }>({ who: 'look' }, async ({ params }) => {
  const { name, bytes } = await loadAsset(database(), fingerprint.parse(params.fingerprint));
  return new Response(new Uint8Array(bytes), {
    headers: {
      'Content-Type': 'application/octet-stream',
      'X-Asset-Name': encodeURIComponent(name),
      'Cache-Control': 'private, max-age=31536000, immutable',
    },
  });
});
