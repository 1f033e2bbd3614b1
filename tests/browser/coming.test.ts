import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { OwnStudio, PASSWORD, type Answer } from '../support/own-studio';

/** How people come into the studio, sign in, and are out again. */
let studio: OwnStudio;
const ask: OwnStudio['ask'] = (...of) => studio.ask(...of);
const must: OwnStudio['must'] = (...of) => studio.must(...of);

beforeAll(async () => {
  studio = await OwnStudio.open();
  for (const role of ['designer', 'contributor', 'viewer'] as const) await studio.comeIn(role);
}, 60_000);
afterAll(() => studio.close());

describe('coming and going', () => {
  it('an invitation is used once, in time, by whoever has it; a withdrawn and a guessed one are told alike', async () => {
    const invite = (more: object = {}) =>
      must('owner', 'POST', '/invitations', {
        name: 'Tove',
        role: 'viewer',
        projects: [],
        days: 1,
        leavesAt: null,
        ...more,
      });
    const link = String((await invite()).body.token);
    const come = (token: string, email: string, password = PASSWORD) =>
      ask('nobody', 'POST', `/invitations/links/${token}`, { name: 'Tove', email, password });
    const twice = await Promise.all([come(link, 'tove@x.example'), come(link, 'tove2@x.example')]);
    expect(twice.map(({ status }) => status).sort()).toEqual([200, 404]);
    const second = String((await invite()).body.token);
    const waiting = (await must('owner', 'GET', '/invitations')).body as unknown as { id: string }[];
    for (const { id } of waiting) await must('owner', 'DELETE', `/invitations/${id}`);
    const [gone, guessed] = await Promise.all([come(second, 'a@x.example'), come('guessed', 'a@x.example')]);
    expect([gone.status, gone.body.message]).toEqual([404, guessed.body.message]);
    const late = String((await invite()).body.token);
    const db = new Database(join(studio.folder, 'isle.db'));
    db.prepare('UPDATE invitation SET ends_at = 1 WHERE used_at IS NULL').run();
    db.close();
    expect((await come(late, 'b@x.example')).body.message).toBe(guessed.body.message);
    const third = String((await invite()).body.token);
    expect((await come(third, 'owner@studio.example')).body.path).toBe('email');
    for (const [password, why] of [
      ['short', /at least 12 characters; 5 were/],
      ['aaaaaaaaaaaaaaaa', /six different/],
      ['abcabcabcabcabc', /six different|over and over/],
      ['abcdefghijklmnop', /in their order/],
      ['tove@x.example1', /others know/],
    ] as const) {
      const { message } = (await come(third, 'tove@x.example', password)).body;
      expect(message).toMatch(why);
      if (password !== 'tove@x.example1') expect(message).not.toContain(password);
    }
    await must('nobody', 'POST', `/invitations/links/${third}`, { email: 'c@x.example', password: PASSWORD });
  });

  it('there is always an owner; one who is taken out is out at once', async () => {
    const people = await studio.people();
    const owner = people.find(({ email }) => email === 'owner@studio.example')!;
    for (const change of [{ role: 'viewer' }, { endsAt: Date.now() }]) {
      const { status, body } = await ask('owner', 'PATCH', `/people/${owner.id}`, change);
      expect([status, body.code]).toEqual([409, 'last_owner']);
    }
    const viewer = people.find(({ email }) => email === 'viewer@studio.example')!;
    await must('viewer', 'GET', '/me');
    await must('owner', 'PATCH', `/people/${viewer.id}`, { endsAt: Date.now() - 1000 });
    expect((await ask('viewer', 'GET', '/me')).status).toBe(401);
    const refused = await ask('nobody', 'POST', '/sessions', { email: viewer.email, password: PASSWORD });
    expect(refused.status).toBe(403);
    await must('owner', 'PATCH', `/people/${viewer.id}`, { endsAt: null });
    // A role that is lowered holds at the next request.
    const designer = people.find(({ email }) => email === 'designer@studio.example')!;
    await must('designer', 'POST', '/projects', { name: 'By a designer' });
    await must('owner', 'PATCH', `/people/${designer.id}`, { role: 'viewer' });
    expect((await ask('designer', 'POST', '/projects', { name: 'By a viewer' })).status).toBe(403);
    await must('owner', 'PATCH', `/people/${designer.id}`, { role: 'designer' });
  });

  it('a session that was ended, stolen from the database or made up opens nothing; the cookie is closed to scripts and other sites', async () => {
    const response = await fetch(`${studio.address}/api/v1/sessions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ email: ' Designer@Studio.example ', password: PASSWORD }),
    });
    // RFC 6265bis: HttpOnly, SameSite, Path; Max-Age as long as the session lasts at most.
    expect(response.headers.get('set-cookie')).toMatch(
      /^isle=[\w-]{43}; Max-Age=77\d{5}; Path=\/; HttpOnly; SameSite=Lax$/,
    );
    const cookie = response.headers.get('set-cookie')!.split(';')[0]!;
    const as = (held: string) => fetch(`${studio.address}/api/v1/me`, { headers: { cookie: held } });
    expect((await as(cookie)).status).toBe(200);
    const db = new Database(join(studio.folder, 'isle.db'), { readonly: true });
    const keys = db.prepare('SELECT id FROM session').pluck().all() as string[];
    db.close();
    expect(keys.some((key) => cookie.includes(key))).toBe(false);
    for (const made of [keys[0]!, 'x'.repeat(43), '', '%'])
      expect((await as(`isle=${made}`)).status).toBe(401);
    studio.cookies.set('nobody', cookie);
    await must('nobody', 'DELETE', '/sessions/own');
    studio.cookies.set('nobody', '');
    expect((await as(cookie)).status).toBe(401);
    const foreign = await fetch(`${studio.address}/api/v1/sessions`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: 'https://evil.example' },
      body: JSON.stringify({ email: 'owner@studio.example', password: PASSWORD }),
    });
    expect(foreign.status).toBe(403);
    expect(foreign.headers.get('set-cookie')).toBeNull();
  });

  it('wrong passwords slow one down for a while, for known and unknown addresses alike', async () => {
    const wrong = () => ask('nobody', 'POST', '/sessions', { email: 'nobody@x.example', password: 'no' });
    const known = await ask('nobody', 'POST', '/sessions', { email: 'owner@studio.example', password: 'no' });
    const unknown = await wrong();
    expect([known.status, known.body.message]).toEqual([unknown.status, unknown.body.message]);
    let slowed: Answer = unknown;
    for (let tries = 0; tries < 8 && slowed.status !== 429; tries += 1) slowed = await wrong();
    expect([slowed.status, slowed.body.code]).toEqual([429, 'too_many']);
    expect(slowed.body.wait).toBeLessThanOrEqual(120);
  });

  it('a link by an owner sets a new password, and whoever was signed in is not any more', async () => {
    const people = await studio.people();
    const viewer = people.find(({ email }) => email === 'viewer@studio.example')!;
    const old = String((await must('owner', 'POST', `/people/${viewer.id}/renewals`)).body.token);
    const link = String((await must('owner', 'POST', `/people/${viewer.id}/renewals`)).body.token);
    expect((await ask('nobody', 'GET', `/invitations/links/${old}`)).status).toBe(404);
    expect((await must('nobody', 'GET', `/invitations/links/${link}`)).body).toMatchObject({
      renewal: true,
      email: viewer.email,
    });
    const set = await must('nobody', 'POST', `/invitations/links/${link}`, {
      password: 'three wet bathing suits',
    });
    expect((await ask('viewer', 'GET', '/me')).status).toBe(401);
    studio.cookies.set('viewer', set.cookie);
    await must('viewer', 'GET', '/me');
  });
});
