import type { StdioOptions } from 'node:child_process';

export const root: string;
export function build(stdio?: StdioOptions): void;
export function ensurePackages(): void;
export function ensureChromium(): string;
