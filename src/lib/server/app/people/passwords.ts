import { hash, verify } from '@node-rs/argon2';
import pLimit from 'p-limit';
import { fail, type Failure } from '../../../contract/failure';
import { PEOPLE_LIMITS } from '../../../contract/people';

/**
 * Argon2id (version 1.3) with the parameters that RFC 9106 recommends second, where memory is short (section 4): three passes over
 * 64 MiB, four lanes, a random salt of 128 bits and a tag of 256. It runs on threads of its own.
 */
const ARGON2ID = {
  algorithm: 2,
  version: 1,
  memoryCost: 65_536,
  timeCost: 3,
  parallelism: 4,
  outputLen: 32,
} as const;

/** So many are made at a time: each takes 64 MiB. */
const AT_ONCE = 2;
const inTurn = pLimit(AT_ONCE);

export const hashed = (password: string): Promise<string> =>
  inTurn(() => hash(password.normalize('NFC'), ARGON2ID));

/** Whether a password is the one that was kept. Without one it takes as long, so that nobody learns who is here. */
export function isRight(password: string, kept: string | null): Promise<boolean> {
  return inTurn(async () => {
    const right = await verify(kept ?? (await nobodys()), password.normalize('NFC'));
    return right && kept !== null;
  });
}

let madeUp: Promise<string> | null = null;
const nobodys = (): Promise<string> => (madeUp ??= hash(Math.random().toString(36), ARGON2ID));

/** What is wrong with a password, by rules that need no list: length, variety, and what others would try first. */
export function passwordFault(password: string, about: readonly string[]): Failure | null {
  const refuse = (why: string): Failure =>
    fail('invalid', `${why} Choose another password.`, 'password').failure;
  const letters = [...password.normalize('NFC')];
  const { least, most } = PEOPLE_LIMITS.password;
  if (letters.length < least)
    return refuse(`A password has at least ${least} characters; this one has ${letters.length}.`);
  if (letters.length > most) return refuse(`A password has at most ${most} characters.`);
  if (new Set(letters).size < 6) return refuse('This password has fewer than six different characters.');
  const low = password.toLowerCase();
  if (isRepeated(low)) return refuse('This password says one thing over and over.');
  if (stepsIn(low) > letters.length / 2)
    return refuse('This password is mostly letters or digits in their order.');
  const known = about
    .flatMap((text) => [text, ...text.split(/[\s@.,_-]+/)])
    .map((text) => text.toLowerCase())
    .find((text) => text.length >= 4 && low.includes(text) && low.length - text.length < 8);
  if (known) return refuse(`This password is little more than “${known}”, which others know.`);
  return null;
}

const isRepeated = (text: string): boolean => (text + text).indexOf(text, 1) < text.length;

const ROWS = ['abcdefghijklmnopqrstuvwxyz', '01234567890', 'qwertyuiop', 'asdfghjkl', 'zxcvbnm'];

/** How many characters follow the one before as they stand in the alphabet, among digits or on a keyboard, in either direction. */
function stepsIn(text: string): number {
  const pairs = ROWS.flatMap((row) => [...row].slice(1).map((letter, index) => row[index] + letter));
  const known = new Set(pairs.flatMap((pair) => [pair, pair[1]! + pair[0]!]));
  let count = 0;
  for (let at = 1; at < text.length; at += 1) if (known.has(text.slice(at - 1, at + 1))) count += 1;
  return count;
}
