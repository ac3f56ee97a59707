import { metrics } from '@/server/gateway/metrics';
import { route } from '@/server/http/route';

export const dynamic = 'force-dynamic';

/** What is counted and measured, in the text format that Prometheus reads. */
export const GET = route({ who: 'run' }, async () => {
  const { registry } = metrics();
  return new Response(await registry.metrics(), { headers: { 'Content-Type': registry.contentType } });
});
