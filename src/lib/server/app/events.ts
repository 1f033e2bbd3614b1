import type { Db } from '../db/open';

/** Ends every stream, so that the server can end: it waits for answers that are under way. */
const enders = new Set<() => void>();
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.on(signal, () => {
    for (const end of enders) end();
  });

const LOOK_MS = 200;
/** A line that says nothing, so that proxies keep the connection. */
const QUIET_MS = 20_000;

/**
 * What changes, as server-sent events: the kind and the id of what changed, nothing else; who listens asks for the rest.
 * The event table is read a few times a second, which also sees the writes of other processes.
 */
export function eventStream(db: Db, closed: AbortSignal): Response {
  const newest = db.$client.prepare('SELECT coalesce(max(id), 0) FROM event').pluck();
  const since = db.$client.prepare(
    'SELECT id, kind, subject_id AS subject FROM event WHERE id > ? ORDER BY id LIMIT 200',
  );
  let last = newest.get() as number;
  let end = (): void => undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      let spoken = Date.now();
      const say = (text: string): void => {
        controller.enqueue(encoder.encode(text));
        spoken = Date.now();
      };
      const stop = (end = (): void => {
        enders.delete(stop);
        clearInterval(timer);
        try {
          controller.close();
        } catch {
          // Closed by the other side already.
        }
      });
      enders.add(stop);
      say(': here\n\n');
      const timer = setInterval(() => {
        if (closed.aborted) return stop();
        const rows = since.all(last) as { id: number; kind: string; subject: string }[];
        const quiet = Date.now() - spoken > QUIET_MS;
        try {
          for (const { id, kind, subject } of rows) {
            last = id;
            say(`data: ${JSON.stringify({ kind, subject })}\n\n`);
          }
          if (quiet) say(': still here\n\n');
        } catch {
          stop();
        }
      }, LOOK_MS);
      closed.addEventListener('abort', stop);
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache', 'x-accel-buffering': 'no' },
  });
}
