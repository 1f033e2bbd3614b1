import { Worker } from 'node:worker_threads';
import type { WorkCall, WorkReply } from '../../contract/work';
import { TASKS } from './tasks';

/** Entry of a child process: takes one ask after the other and answers each. */
const say = (reply: WorkReply): void => void process.send?.(reply);

process.on('message', (call: WorkCall) => {
  void answer(call);
});
process.on('disconnect', () => process.exit(0));

async function answer({ id, name, ask }: WorkCall): Promise<void> {
  try {
    const task = TASKS[name] as (ask: unknown, progress: (share: number) => void) => Promise<never>;
    const outcome = await task(ask, (progress) => say({ id, progress }));
    say({ id, outcome });
  } catch (error) {
    say({ id, fault: error instanceof Error ? (error.stack ?? error.message) : String(error) });
  }
}

/**
 * A process that loops does not hear that its server is gone. So a thread beside it looks whose child it is, and ends it
 * when it is nobody's.
 */
const WATCH = `
  const parent = process.ppid;
  setInterval(() => { if (process.ppid !== parent) process.kill(process.pid, 'SIGKILL'); }, 500);
`;
new Worker(WATCH, { eval: true }).unref();
