import { createHash, randomBytes } from 'node:crypto';

/** What nobody guesses: 256 random bits, as letters that may stand in an address. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** Under which key a token is kept: whoever reads the database cannot use it. */
export const keyOf = (token: string): string => createHash('sha256').update(token).digest('hex');
