import type { Db } from '../db/open';

const LOOK_MS = 200;
/** A line that says nothing, so that proxies keep the connection. */
const QUIET_MS = 20_000;

type Happened = { id: number; kind: string; subject: string; version: number | null };
type Listener = (happened: readonly Happened[]) => void;

/** What changes, told to everyone who listens. One look at the event table serves all of them. */
export class Events {
  private readonly listeners = new Set<Listener>();
  private readonly enders = new Set<() => void>();
  private timer: NodeJS.Timeout | null = null;
  private last = 0;

  constructor(private readonly db: Db) {}

  /** Ends every stream, so that the server can end: it waits for answers that are under way. */
  close(): void {
    for (const end of [...this.enders]) end();
  }

  /**
   * What changes, as server-sent events: the kind and the id of what changed, and of a layout its version, so that a save of
   * one's own is known; who listens asks for the rest.
   */
  stream(closed: AbortSignal): Response {
    const encoder = new TextEncoder();
    let end = (): void => undefined;
    const stream = new ReadableStream<Uint8Array>({
      start: (controller) => {
        const say = (text: string): void => {
          try {
            controller.enqueue(encoder.encode(text));
          } catch {
            end();
          }
        };
        const listener: Listener = (happened) => {
          for (const { kind, subject, version } of happened)
            say(`data: ${JSON.stringify({ kind, subject, ...(version === null ? {} : { version }) })}\n\n`);
        };
        const quiet = setInterval(() => say(': still here\n\n'), QUIET_MS);
        end = () => {
          this.enders.delete(end);
          clearInterval(quiet);
          this.unlisten(listener);
          try {
            controller.close();
          } catch {
            // Closed by the other side already.
          }
        };
        this.enders.add(end);
        this.listen(listener);
        say(': here\n\n');
        closed.addEventListener('abort', end, { once: true });
      },
      cancel: () => end(),
    });
    return new Response(stream, {
      headers: {
        'content-type': 'text/event-stream',
        'cache-control': 'no-cache',
        'x-accel-buffering': 'no',
      },
    });
  }

  private listen(listener: Listener): void {
    this.listeners.add(listener);
    if (this.timer) return;
    // The table is read, not only what this process writes: others may write too.
    const newest = this.db.$client.prepare('SELECT coalesce(max(id), 0) FROM event').pluck();
    const since = this.db.$client.prepare(
      "SELECT id, kind, subject_id AS subject, json_extract(data, '$.version') AS version FROM event WHERE id > ? ORDER BY id LIMIT 200",
    );
    this.last = newest.get() as number;
    this.timer = setInterval(() => {
      const happened = since.all(this.last) as Happened[];
      const newestOne = happened[happened.length - 1];
      if (!newestOne) return;
      this.last = newestOne.id;
      for (const one of [...this.listeners]) one(happened);
    }, LOOK_MS);
    this.timer.unref();
  }

  private unlisten(listener: Listener): void {
    this.listeners.delete(listener);
    if (this.listeners.size > 0 || !this.timer) return;
    clearInterval(this.timer);
    this.timer = null;
  }
}
