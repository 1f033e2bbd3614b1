import { describe, expect, it } from 'vitest';
import { schemas } from './schemas';
import { problemOf } from './sentences';

/** What a body is refused with. */
function sentences(
  schema: (typeof schemas)['createLayout' | 'changes' | 'createProject' | 'patchPattern'],
  body: unknown,
): string[] {
  return (schema.validate(body, { abortEarly: false, convert: false }).error?.details ?? []).map(
    (item) => problemOf(item).message,
  );
}

describe('a refused body', () => {
  it('gets sentences that name field, limit and what was given', () => {
    expect(
      sentences(schemas.createLayout, {
        name: 'x'.repeat(90),
        width: 0,
        height: '5',
        measure: 'cm',
        extra: 1,
      }),
    ).toEqual([
      'The name may have at most 80 characters; 90 were given.',
      'The width must be at least 1; 0 was given.',
      'The height must be a finite number; “5” was given.',
      'The unit of length must be “px” or “mm” or “in” or “pt”; “cm” was given.',
      '“extra” is not known here; leave it out.',
    ]);
    expect(sentences(schemas.createProject, { name: ' \u202E\u0000 ' })).toEqual([
      'The name must not be empty.',
    ]);
    expect(sentences(schemas.createProject, {})).toEqual(['The name is missing.']);
    expect(sentences(schemas.patchPattern, { base: 1 })).toEqual([
      'The request needs at least one of name, description, tags, collections, credit.',
    ]);
    expect(sentences(schemas.changes, { base: 1, changes: [{ do: 'paint' }] })[0]).toMatch(
      /“put-shape” or “patch-shape”/,
    );
  });
});

describe('a name', () => {
  const kept = (name: string): unknown =>
    (schemas.createProject.validate({ name }, { convert: false }).value as { name: string }).name;

  it('is kept composed, in one line, without what cannot be seen', () => {
    // Unicode NFC: e with a combining acute is é. UAX #9: U+202E turns the direction of what follows.
    expect(kept(' Cafe\u0301 \n Pool\u202Egnp.exe\u2066 ')).toBe('Café   Poolgnp.exe');
    expect(kept('\uD800Pool\uFEFF\u0007')).toBe('Pool');
  });

  it('keeps joiners and signs that scripts and emoji are written with', () => {
    for (const name of ['می\u200Cخواهم', '👩\u200D🎨', 'Ω ≈ ½', 'שלום']) expect(kept(name)).toBe(name);
  });
});
