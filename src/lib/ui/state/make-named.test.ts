import { describe, expect, it } from 'vitest';
import { done, fail, type Outcome } from '../../contract/failure';
import { makeNamed } from './make-named';

describe('something made under a name', () => {
  /** Makes under names that nobody holds; answers those that were tried, too. */
  const studio = (held: readonly string[]) => {
    const tried: string[] = [];
    const make = (name: string): Promise<Outcome<string>> => {
      tried.push(name);
      return Promise.resolve(
        held.includes(name) ? fail('name_taken', `“${name}” is taken.`, 'name') : done(name),
      );
    };
    return { tried, make };
  };

  it('has the next name that is free, archived ones too, which a view does not know of', async () => {
    const { tried, make } = studio(['Cups 2', 'Cups 3']);
    expect(await makeNamed('Cups', ['Cups'], make)).toEqual(done('Cups 4'));
    expect(tried).toEqual(['Cups 2', 'Cups 3', 'Cups 4']);
  });

  it('has its own where nobody holds it', async () => {
    const { tried, make } = studio([]);
    expect(await makeNamed('Cups', ['Mugs'], make)).toEqual(done('Cups'));
    expect(tried).toEqual(['Cups']);
  });

  it('is not tried for ever, nor again for another reason', async () => {
    let tries = 0;
    const never = (code: 'name_taken' | 'invalid'): Promise<Outcome<string>> => {
      tries += 1;
      return Promise.resolve(fail(code, 'No.'));
    };
    expect((await makeNamed('Cups', [], () => never('name_taken'))).ok).toBe(false);
    expect(tries).toBe(30);
    await makeNamed('Cups', [], () => never('invalid'));
    expect(tries).toBe(31);
  });
});
