import { Router } from 'express';
import type { Hub } from './hub';

/** Comments between events, so that nothing on the way takes the connection for dead. */
const PULSE_MS = 20_000;

/** GET /api/events: what changes, as server-sent events (WHATWG HTML, section 9.2). */
export function eventRoutes(hub: Hub): Router {
  const router = Router();
  router.get('/', (request, response) => {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
    response.flushHeaders();
    response.write('retry: 2000\n\n: open\n\n');
    const stop = hub.listen((news) => response.write(`data: ${JSON.stringify(news)}\n\n`));
    const pulse = setInterval(() => response.write(': still here\n\n'), PULSE_MS);
    request.on('close', () => {
      clearInterval(pulse);
      stop();
    });
  });
  return router;
}
