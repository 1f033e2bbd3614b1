import { done, fail, type Outcome } from '../../contract/failure';
import type { Answer, Ask, WorkName } from '../../contract/work';
import { Child, type Ended, type Ran } from './child';
import { LANES, WORK_LIMITS, type Lane, type WorkLimit } from './limits';
import { Turns, type Turn } from './turns';

export type RunOptions = {
  /** Who asks: everyone has a turn in turn. */
  asker?: string;
  /** Ends the work at once, wherever it is. */
  signal?: AbortSignal;
  /** Told the share done, 0 to 1. */
  progress?: (share: number) => void;
  /** Told how many are before it in the queue, whenever that changes; `null` once the work has begun. */
  ahead?: (count: number | null) => void;
};

/** The child processes in which files are read and pictures are drawn. */
export type Processes = {
  run<N extends WorkName>(name: N, ask: Ask<N>, options?: RunOptions): Promise<Answer<N>>;
  /** Ends everything that runs or waits, and takes nothing more. */
  close(): Promise<void>;
};

type Waiting = {
  name: WorkName;
  ask: unknown;
  options: RunOptions;
  settle: (outcome: Outcome<unknown>) => void;
};

/** How long a process without work is kept. */
const IDLE_MS = 60_000;

/** Opens the processes; each is started when it is first needed. `say` writes a line to the log. */
export function openProcesses(say: (line: string) => void = () => undefined): Processes {
  const lanes = new Map<Lane, LaneOfProcesses>();
  for (const lane of Object.keys(LANES) as Lane[]) lanes.set(lane, new LaneOfProcesses(lane, say));
  return {
    run: (name, ask, options = {}) =>
      (lanes.get(WORK_LIMITS[name].lane) as LaneOfProcesses).run(name, ask, options) as Promise<never>,
    close: async () => {
      await Promise.all([...lanes.values()].map((lane) => lane.close()));
    },
  };
}

class LaneOfProcesses {
  private readonly turns = new Turns<Waiting>();
  private readonly children = new Set<Child>();
  private readonly timers = new Map<Child, NodeJS.Timeout>();
  private readonly waiting = new Set<Turn<Waiting>>();
  private closed = false;

  constructor(
    private readonly lane: Lane,
    private readonly say: (line: string) => void,
  ) {}

  run(name: WorkName, ask: unknown, options: RunOptions): Promise<Outcome<unknown>> {
    const { signal, asker = '' } = options;
    if (this.closed)
      return Promise.resolve(fail('stopping', 'Isle is being stopped; try again in a moment.'));
    if (signal?.aborted) return Promise.resolve(stopped());
    if (this.turns.size >= LANES[this.lane].waiting)
      return Promise.resolve(
        fail('busy', `${this.turns.size} others are waiting for the same; try again in a moment.`),
      );
    return new Promise((resolve) => {
      const turn: Turn<Waiting> = { asker, value: { name, ask, options, settle: resolve } };
      this.turns.add(turn);
      this.waiting.add(turn);
      signal?.addEventListener('abort', () => this.forget(turn), { once: true });
      this.begin();
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    for (const turn of [...this.waiting]) this.forget(turn);
    const ends = [...this.children].map((child) => this.ended(child));
    for (const child of this.children) child.end({ why: 'stopped' });
    await Promise.all(ends);
  }

  private ended(child: Child): Promise<void> {
    return new Promise((resolve) => {
      const look = setInterval(() => {
        if (!child.gone) return;
        clearInterval(look);
        resolve();
      }, 10);
    });
  }

  /** Takes an ask that has not begun out of the queue. */
  private forget(turn: Turn<Waiting>): void {
    if (!this.turns.remove(turn)) return;
    this.waiting.delete(turn);
    turn.value.settle(stopped());
    this.tellPlaces();
  }

  /** Gives work to every process that has none, and starts more where there may be more. */
  private begin(): void {
    while (!this.closed && this.turns.size > 0) {
      const child = this.idleChild();
      if (!child) break;
      const turn = this.turns.next();
      if (!turn) break;
      this.waiting.delete(turn);
      void this.work(child, turn.value);
    }
    this.tellPlaces();
  }

  private idleChild(): Child | null {
    for (const child of this.children) if (!child.busy && !child.spent) return child;
    const alive = [...this.children].filter((child) => !child.spent).length;
    if (alive >= LANES[this.lane].processes) return null;
    const heap = Math.max(
      ...Object.values(WORK_LIMITS).flatMap(({ lane, megabytes }) => (lane === this.lane ? [megabytes] : [])),
    );
    const child: Child = new Child(LANES[this.lane].niceness, heap, () => {
      this.children.delete(child);
      clearTimeout(this.timers.get(child));
      this.timers.delete(child);
      this.begin();
    });
    this.children.add(child);
    return child;
  }

  private async work(child: Child, { name, ask, options, settle }: Waiting): Promise<void> {
    const limit = WORK_LIMITS[name];
    clearTimeout(this.timers.get(child));
    options.ahead?.(null);
    const ran = await child.run(name, ask, limit, options);
    settle(this.outcomeOf(name, ran, limit));
    const timer = setTimeout(() => !child.busy && child.end(null), IDLE_MS);
    this.timers.set(child, timer.unref());
    this.begin();
  }

  private outcomeOf(name: WorkName, ran: Ran, limit: WorkLimit): Outcome<unknown> {
    if (ran.ok) return ran.outcome.ok ? done(ran.outcome.value) : ran.outcome;
    const { ended } = ran;
    if (ended.why === 'died' || ended.why === 'fault') this.say(`${name}: ${ended.how}`);
    return whyFailed(ended, limit);
  }

  private tellPlaces(): void {
    for (const turn of this.waiting) turn.value.options.ahead?.(this.turns.ahead(turn));
  }
}

const stopped = (): Outcome<never> => fail('cancelled', 'This was stopped.');

/** A sentence for work that came to no answer. */
export function whyFailed(ended: Ended, { what, seconds, megabytes }: WorkLimit): Outcome<never> {
  switch (ended.why) {
    case 'stopped':
      return stopped();
    case 'time':
      return fail(
        'too_heavy',
        `${what} took longer than ${seconds} s and was stopped; make it simpler or smaller.`,
      );
    case 'memory':
      return fail(
        'too_heavy',
        `${what} needed more than ${megabytes} MB of memory and was stopped; make it simpler or smaller.`,
      );
    case 'died':
    case 'fault':
      return fail(
        'unsupported',
        `${what} did not work: something in it brings the drawing to a stop. Simplify it, or leave parts out.`,
      );
  }
}
