import { Router } from 'express';
import type { Hub } from './hub';

/** Comments between events, so that nothing on the way takes the connection for dead. */
const PULSE_MS = 20_000;

/** Bytes that may wait for a listener that does not read. */
const MOST_UNREAD = 256 * 1024;

/** GET /api/events: what changes, as server-sent events (WHATWG HTML, section 9.2). */
export function eventRoutes(hub: Hub): Router {
  const router = Router();
  router.get('/', (request, response) => {
    response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform' });
    response.flushHeaders();
    response.write('retry: 2000\n\n: open\n\n');
    const say = (text: string): void => {
      // Who does not read is let go; its page connects again and then asks for everything anew.
      if (response.writableLength > MOST_UNREAD) response.destroy();
      else response.write(text);
    };
    const stop = hub.listen((news) => say(`data: ${JSON.stringify(news)}\n\n`));
    const pulse = setInterval(() => say(': still here\n\n'), PULSE_MS);
    request.on('close', () => {
      clearInterval(pulse);
      stop();
    });
  });
  return router;
}
