import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PersonData, Role } from '../../src/lib/contract/people';
import { askedBy, openDatabase, type Db } from '../../src/lib/server/db/open';
import { closedProjects, setProjectPeople, unreachable } from '../../src/lib/server/repo/access';
import { listActivity } from '../../src/lib/server/repo/activity';
import { approvalOf, setApproval } from '../../src/lib/server/repo/approvals';
import {
  addComment,
  listComments,
  mentionsOf,
  readComments,
  setDone,
} from '../../src/lib/server/repo/comments';
import { accept, invite, listInvitations, openInvitation } from '../../src/lib/server/repo/invitations';
import {
  addPerson,
  changePerson,
  getPerson,
  hasOwner,
  onlyPerson,
  openStudio,
} from '../../src/lib/server/repo/people';
import { applyChanges } from '../../src/lib/server/repo/layout-changes';
import { listProjects } from '../../src/lib/server/repo/projects';
import {
  beginSession,
  endOtherSessions,
  listSessions,
  sessionPerson,
} from '../../src/lib/server/repo/sessions';
import { kept, laidOut, need, projectNamed, sentence } from '../support/studio';

/** People as the database has them: sessions, invitations, what they may see, and what they say. */
const DAY = 86_400_000;
let db: Db;
let owner = '';
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date'] });
  db = openDatabase(':memory:');
  owner = need(
    openStudio(db, { studio: 'Pier', name: 'Mara', email: 'Mara@Pier.example ', password: 'hash' }),
  ).id;
});
afterEach(() => {
  vi.useRealTimers();
  db.$client.close();
});
const later = (ms: number): void => void vi.setSystemTime(Date.now() + ms);
const somebody = (name: string, role: Role): PersonData =>
  getPerson(db, addPerson(db, { name, role, email: `${name}@x.example`, password: 'hash' }))!;

describe('a session', () => {
  it('ends when it is not used for two weeks, and after ninety days however it is used', () => {
    beginSession(db, 'idle', owner, 'Here');
    beginSession(db, 'used', owner, 'There');
    later(13 * DAY);
    expect([sessionPerson(db, 'idle'), sessionPerson(db, 'used')]).toEqual([owner, owner]);
    for (let weeks = 0; weeks < 10; weeks += 1) {
      later(7 * DAY);
      expect(sessionPerson(db, 'used')).toBe(owner);
    }
    expect(sessionPerson(db, 'idle')).toBeNull();
    later(8 * DAY);
    expect(sessionPerson(db, 'used')).toBeNull();
    expect(listSessions(db, owner, null)).toEqual([]);
  });

  it('stands when the clock goes back, is one of fifty, and can be ended from another', () => {
    beginSession(db, 'first', owner, 'Here');
    later(-3 * DAY);
    expect(sessionPerson(db, 'first')).toBe(owner);
    for (let count = 0; count < 60; count += 1) {
      later(1000);
      beginSession(db, `s${count}`, owner, 'Tab');
    }
    expect(listSessions(db, owner, 's59')).toHaveLength(50);
    expect(listSessions(db, owner, 's59')[0]).toMatchObject({ id: 's59', own: true });
    expect(endOtherSessions(db, owner, 's59')).toEqual({ ok: true, value: { ended: 49 } });
    expect([sessionPerson(db, 's58'), sessionPerson(db, 's59')]).toEqual([null, owner]);
  });
});

describe('coming in', () => {
  const asked = (more = {}) => ({
    name: 'Tove',
    role: 'contributor' as const,
    projects: [],
    days: 2,
    leavesAt: null,
    ...more,
  });

  it('by a link makes a person with its role, its projects and its end, once and in time', () => {
    const project = projectNamed(db, 'Job');
    const end = Date.now() + 5 * DAY;
    need(invite(db, 'key', asked({ projects: [project], leavesAt: end })));
    expect(listInvitations(db)).toMatchObject([{ name: 'Tove', projects: ['Job'] }]);
    const { id } = need(accept(db, 'key', { email: 'Tove@X.example', password: 'hash' }));
    expect(getPerson(db, id)).toMatchObject({
      name: 'Tove',
      role: 'contributor',
      email: 'tove@x.example',
      endsAt: end,
    });
    expect(unreachable(db, getPerson(db, id)!, 'project', project, true)).toBeNull();
    expect(sentence(accept(db, 'key', { email: 'b@x.example', password: 'hash' }))).toMatch(
      /not valid any more/,
    );
    need(invite(db, 'late', asked()));
    later(3 * DAY);
    expect(sentence(openInvitation(db, 'late'))).toMatch(/not valid any more/);
    // Whoever's time is over is signed out without anybody doing anything.
    beginSession(db, 'tove', id, 'Here');
    later(3 * DAY);
    expect(sessionPerson(db, 'tove')).toBeNull();
  });

  it('leaves always an owner who can sign in', () => {
    expect(hasOwner(db)).toBe(true);
    const other = somebody('jonas', 'owner');
    need(changePerson(db, owner, { role: 'viewer' }));
    expect(sentence(changePerson(db, other.id, { role: 'designer' }))).toMatch(
      /^last_owner: jonas is the only owner/,
    );
    expect(sentence(changePerson(db, other.id, { endsAt: Date.now() + DAY }))).toMatch(/^last_owner/);
    // One who has no way in does not count.
    addPerson(db, { name: 'Ghost', role: 'owner', email: 'g@x.example', password: null });
    expect(sentence(changePerson(db, other.id, { role: 'designer' }))).toMatch(/^last_owner/);
    const fresh = openDatabase(':memory:');
    expect([onlyPerson(fresh), onlyPerson(fresh)]).toEqual([onlyPerson(fresh), onlyPerson(fresh)]);
    expect(hasOwner(fresh)).toBe(false);
    fresh.$client.close();
  });
});

describe('a closed project', () => {
  it('is seen by those named in it and by owners; whoever closes it stays in it', () => {
    const [designer, viewer] = [somebody('tove', 'designer'), somebody('pim', 'viewer')];
    const project = projectNamed(db, 'Job');
    const asked = askedBy(db, designer.id);
    need(setProjectPeople(asked, project, { closed: true, people: [] }));
    const seen = (id: string): number => listProjects(askedBy(db, id)).length;
    expect([owner, designer.id, viewer.id].map(seen)).toEqual([1, 1, 0]);
    expect([...closedProjects(askedBy(db, viewer.id))]).toEqual([project]);
    expect(need(listActivity(db, viewer, {})).some(({ what }) => what === 'Job')).toBe(false);
    expect(need(listActivity(db, designer, {})).some(({ what }) => what === 'Job')).toBe(true);
    expect(sentence(setProjectPeople(asked, project, { closed: true, people: ['nobody'] }))).toMatch(
      /not in the studio/,
    );
  });
});

describe('what is said', () => {
  it('names people by the longest name, marks what is unread, and is told to those it names until they have read it', () => {
    const [tove, toveLind] = [somebody('Tove', 'designer'), somebody('Tove Lind', 'viewer')];
    const { id } = laidOut(db, projectNamed(db, 'Job'), 'Sign', []);
    const about = { kind: 'layout' as const, id };
    const say = (person: PersonData, words: string, parentId: string | null = null) =>
      need(
        addComment(askedBy(db, person.id), person, { ...about, words, parentId, shapeId: null, x: 1, y: 2 }),
      ).id;
    const first = say(tove, 'For @Tove Lind, not for you');
    later(10);
    expect(need(listComments(db, toveLind, about))).toMatchObject([
      { mentions: [toveLind.id], unread: true, x: 1 },
    ]);
    expect(need(listComments(db, tove, about))).toMatchObject([{ unread: false }]);
    expect(mentionsOf(db, toveLind)).toMatchObject([{ by: 'Tove', what: 'Sign' }]);
    expect(mentionsOf(db, tove)).toEqual([]);
    need(readComments(db, toveLind, about));
    expect(mentionsOf(db, toveLind)).toEqual([]);
    later(10);
    const answer = say(toveLind, '@tove yes', first);
    expect(mentionsOf(db, tove)).toHaveLength(1);
    const deeper = addComment(db, tove, {
      ...about,
      words: 'x',
      parentId: answer,
      shapeId: null,
      x: null,
      y: null,
    });
    expect(sentence(deeper)).toMatch(/not to an answer/);
    need(setDone(askedBy(db, tove.id), tove, first, true));
    expect(need(listComments(db, tove, about))[0]).toMatchObject({ doneBy: 'Tove' });
  });

  it('approval is of a version: another one is worked on again', () => {
    const [designer, contributor] = [somebody('tove', 'designer'), somebody('ilse', 'contributor')];
    const project = projectNamed(db, 'Job');
    const { id } = laidOut(db, project, 'Sign', []);
    const set = (person: PersonData, state: 'asked' | 'approved' | 'working') =>
      setApproval(askedBy(db, person.id), person, { kind: 'layout', id, state });
    expect(sentence(set(contributor, 'asked'))).toMatch(/named in/);
    need(setProjectPeople(db, project, { closed: false, people: [contributor.id] }));
    need(set(contributor, 'asked'));
    expect(sentence(set(contributor, 'approved'))).toMatch(/Designers and owners approve/);
    need(set(designer, 'approved'));
    expect(approvalOf(db, 'layout', id)).toMatchObject({ state: 'approved', by: 'tove', at: 2, now: 2 });
    need(applyChanges(db, id, 2, [{ do: 'page', bleed: 3 }]));
    expect(approvalOf(db, 'layout', id)).toMatchObject({ state: 'working', at: 2, now: 3 });
    const pattern = kept(db, 'Waves');
    need(setApproval(db, designer, { kind: 'pattern', id: pattern, state: 'approved' }));
    expect(approvalOf(db, 'pattern', pattern)).toMatchObject({ state: 'approved', at: 1 });
    need(set(designer, 'working'));
    expect(approvalOf(db, 'layout', id)).toMatchObject({ state: 'working', when: null });
  });
});
