import type { ChildProcess, StdioOptions } from 'node:child_process';

export function freePort(port: number, host?: string): Promise<number>;
export function startServer(options: {
  port: number;
  host?: string;
  dataFolder: string;
  demo: boolean;
  stdio?: StdioOptions;
  env?: Record<string, string>;
}): Promise<{ child: ChildProcess; address: string }>;
