import { expect, it } from 'vitest';
import { ACTIVITY_KINDS } from '$lib/contract/talk';
import { activityWords } from './activity-words';

it('has words for everything that is listed', () => {
  for (const kind of ACTIVITY_KINDS) {
    const words = activityWords({
      kind,
      data: { revision: 2, from: 1, at: 3, kind: 'pattern', name: 'First' },
    });
    expect(words, kind).not.toMatch(/undefined|null/);
    expect(words, kind).not.toContain(kind);
  }
  expect(activityWords({ kind: 'person.changed', data: { role: 'owner', was: { role: 'viewer' } } })).toBe(
    'changed the role from viewer to owner, of',
  );
  expect(activityWords({ kind: 'layout.state_named', data: { name: null } })).toBe(
    'took away the name of a state of',
  );
});
