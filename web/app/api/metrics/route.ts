import { metrics } from '@/server/gateway/metrics';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** Metrics in Prometheus text format. */
export const GET = route({ who: 'run' }, async () => {
  const { registry } = metrics();
  return new Response(await registry.metrics(), { headers: { 'Content-Type': registry.contentType } });
});
