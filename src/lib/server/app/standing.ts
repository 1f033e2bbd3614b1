import { nanoid } from 'nanoid';

type ListenError = NodeJS.ErrnoException & { address?: string; port?: number };

/**
 * Keeps the server process standing whatever nobody caught: it is written to the log with a number, and Isle goes on. What is
 * kept is written in transactions, and files and pictures are the work of child processes, so nothing half done stays behind.
 * A port that cannot be had is a sentence and the end.
 */
export function standFast(say: (line: string) => void): void {
  process.on('uncaughtException', (error: ListenError) => {
    if (error.syscall === 'listen') {
      const { address, port, code } = error;
      say(
        `Isle cannot listen on ${address}:${port} (${code}). Stop the program that does, or name another port with PORT.`,
      );
      process.exit(1);
    }
    say(`${nanoid(8)} not caught: ${textOf(error)}`);
  });
  process.on('unhandledRejection', (reason) => say(`${nanoid(8)} not caught: ${textOf(reason)}`));
}

const textOf = (fault: unknown): string =>
  fault instanceof Error ? (fault.stack ?? fault.message) : String(fault);
