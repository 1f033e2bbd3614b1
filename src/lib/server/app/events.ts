import type Database from 'better-sqlite3';
import type { LiveEvent } from '../../contract/live';
import type { PersonData } from '../../contract/people';
import type { Db } from '../db/open';
import { kindOfEvent, unreachable } from '../repo/access';

const LOOK_MS = 200;
const MOST_AT_ONCE = 200;
/** Who missed more than this is told to look at everything anew. */
const MOST_MISSED = 500;
/** A line that says nothing, so that proxies keep the connection. */
const QUIET_MS = 20_000;

type Happened = { id: number; kind: string; subject: string; version: number | null };
type Listener = (id: number | null, event: LiveEvent, text: string) => void;

const SELECT =
  "SELECT id, kind, subject_id AS subject, json_extract(data, '$.version') AS version FROM event";

/** What changes, told to everyone who listens and may know of it. One look at the event table serves all of them. */
export class Events {
  private readonly listeners = new Set<Listener>();
  private readonly enders = new Set<() => void>();
  private timer: NodeJS.Timeout | null = null;
  private looking: NodeJS.Immediate | null = null;
  private since: Database.Statement | null = null;
  private last = 0;

  constructor(private readonly db: Db) {}

  /** How many listen. */
  get count(): number {
    return this.listeners.size;
  }

  /** Ends every stream, so that the server can end: it waits for answers that are under way. */
  close(): void {
    for (const end of [...this.enders]) end();
  }

  /**
   * What changes, as server-sent events: the kind and the id of what changed, and of a layout its version, so that a save of
   * one's own is known; who listens asks for the rest. Events have numbers: who lost the line names the last one and is told
   * what was missed.
   */
  stream(
    closed: AbortSignal,
    { person, db, after }: { person: PersonData; db: Db; after: number | null },
  ): Response {
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
        const listener: Listener = (id, event, text) => {
          if (isFor(db, person, event)) say(id === null ? text : `id: ${id}\n${text}`);
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
        say(`id: ${this.last}\n: here\n\n`);
        if (after !== null) this.missed(after, listener);
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

  /** Looks at once, after something was written here: whoever listens need not wait for the next look. */
  soon(): void {
    if (this.timer && !this.looking) this.looking = setImmediate(() => this.look());
  }

  /** Tells everyone who listens what is not kept: who is where. */
  tell(event: LiveEvent): void {
    const text = said(event);
    for (const one of [...this.listeners]) one(null, event, text);
  }

  private missed(after: number, listener: Listener): void {
    const oldest = this.db.$client.prepare('SELECT coalesce(min(id), 0) FROM event').pluck().get() as number;
    const rows = this.db.$client
      .prepare(`${SELECT} WHERE id > ? AND id <= ? ORDER BY id LIMIT ${MOST_MISSED + 1}`)
      .all(after, this.last) as Happened[];
    const whole = oldest <= after + 1 && rows.length <= MOST_MISSED && after <= this.last;
    const told = whole ? rows.map(eventOf) : [{ kind: 'everything', subject: '' }];
    for (const event of told) listener(null, event, said(event));
  }

  private look(): void {
    if (this.looking) clearImmediate(this.looking);
    this.looking = null;
    if (!this.db.$client.open || !this.since) return;
    const happened = this.since.all(this.last) as Happened[];
    const newest = happened[happened.length - 1];
    if (!newest) return;
    this.last = newest.id;
    for (const row of happened) {
      const event = eventOf(row);
      const text = said(event);
      for (const one of [...this.listeners]) one(row.id, event, text);
    }
    if (happened.length === MOST_AT_ONCE) this.soon();
  }

  private listen(listener: Listener): void {
    this.listeners.add(listener);
    if (this.timer) return this.look();
    // The table is read, not only what this process writes: others may write too.
    this.since = this.db.$client.prepare(`${SELECT} WHERE id > ? ORDER BY id LIMIT ${MOST_AT_ONCE}`);
    this.last = this.db.$client.prepare('SELECT coalesce(max(id), 0) FROM event').pluck().get() as number;
    this.timer = setInterval(() => this.look(), LOOK_MS);
    this.timer.unref();
  }

  private unlisten(listener: Listener): void {
    this.listeners.delete(listener);
    if (this.listeners.size > 0 || !this.timer) return;
    clearInterval(this.timer);
    this.timer = null;
  }
}

const eventOf = ({ kind, subject, version }: Happened): LiveEvent => ({
  ...{ kind, subject },
  ...(version === null ? {} : { version }),
});

const said = (event: LiveEvent): string => `data: ${JSON.stringify(event)}\n\n`;

/** Whether somebody may know of an event: what is in a project that is closed to them is told to others alone. */
function isFor(db: Db, person: PersonData, { kind, subject, here }: LiveEvent): boolean {
  if (person.role === 'owner' || subject === '') return true;
  const about = here ? here.kind : kindOfEvent(kind);
  return about === null || unreachable(db, person, about, subject, false) === null;
}
