import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { mayAs, ROLES, type Role } from '../../src/lib/contract/people';
import { ROUTES, type RouteSpec } from '../../src/lib/contract/routes';
import { OwnStudio } from '../support/own-studio';
import { block, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

/** Who may ask what: every route with every role, with nobody signed in, and with the ids of another studio. */
let studio: OwnStudio;
const ask: OwnStudio['ask'] = (...of) => studio.ask(...of);
const must: OwnStudio['must'] = (...of) => studio.must(...of);

beforeAll(async () => {
  studio = await OwnStudio.open();
  for (const role of ['designer', 'contributor', 'viewer'] as const) await studio.comeIn(role);
}, 60_000);
afterAll(() => studio.close());

const routes = Object.entries(ROUTES) as [string, RouteSpec][];
/** An address of a route with ids that nothing has. */
const addressOf = (route: RouteSpec, id = 'nothing'): string =>
  route.path.replace(/\{(\w+)\}/g, (_, key: string) => (key === 'id' ? id : key === 'number' ? '1' : 'x'));

describe('roles', () => {
  it('every route is refused to whoever is not signed in, and to every role below its own; it is heard from all others', async () => {
    for (const [name, route] of routes) {
      if (name === 'signOut' || name === 'endOtherSessions') continue;
      for (const as of ['nobody', ...ROLES] as const) {
        const { status, body } = await ask(as, route.method, addressOf(route));
        const may = route.role === 'anyone' || (as !== 'nobody' && mayAs(as, route.role));
        const refused =
          body.code === 'signed_out' ||
          (body.code === 'forbidden' && /takes an? /.test(String(body.message)));
        expect({ name, as, refused, status: refused ? status : 0 }).toEqual({
          ...{ name, as, refused: !may },
          status: may ? 0 : as === 'nobody' ? 401 : 403,
        });
      }
    }
  }, 240_000);

  it('pages lead to the door, and from there back to where one was going, never to another site', async () => {
    for (const path of ['/library', '/projects', '/studio', '/me', '/palettes?show=x']) {
      const { status, headers } = await fetch(studio.address + path, { redirect: 'manual' });
      expect([status, headers.get('location')]).toEqual([303, `/sign-in?to=${encodeURIComponent(path)}`]);
    }
    const data = await fetch(`${studio.address}/library/__data.json`);
    expect(await data.json()).toMatchObject({ type: 'redirect' });
    for (const to of ['//evil.example', '/\\evil.example', 'https://evil.example']) {
      const headers = { cookie: studio.cookies.get('viewer') ?? '' };
      const { headers: sent } = await fetch(`${studio.address}/sign-in?to=${encodeURIComponent(to)}`, {
        ...{ headers, redirect: 'manual' },
      });
      expect(sent.get('location')).toBe('/');
    }
  });
});

describe('what is of others', () => {
  it('ids of another studio are not there, on every route that takes one', async () => {
    const other = new Database(join(studio.folder, 'isle.db'));
    const now = Date.now();
    const put = (sql: string, ...values: unknown[]): void => void other.prepare(sql).run(...values);
    put("INSERT INTO studio (id, name, created_at) VALUES ('other', 'Other', ?)", now + 1e9);
    put(
      `INSERT INTO project (id, studio_id, name, name_key, created_at, updated_at) VALUES ('oproject', 'other', 'Secret', 'secret', 1, 1)`,
    );
    put(`INSERT INTO layout (id, studio_id, project_id, name, name_key, width, height, measure, ppi, created_at, updated_at)
      VALUES ('olayout', 'other', 'oproject', 'Secret', 'secret', 9, 9, 'px', 96, 1, 1)`);
    put(
      `INSERT INTO pattern (id, studio_id, name, name_key, seq, newest, created_at, updated_at) VALUES ('opattern', 'other', 'Secret', 'secret', 9999, 1, 1, 1)`,
    );
    put(
      `INSERT INTO palette (id, studio_id, name, name_key, created_at, updated_at) VALUES ('opalette', 'other', 'Secret', 'secret', 1, 1)`,
    );
    put(
      `INSERT INTO collection (id, studio_id, name, name_key, created_at) VALUES ('ocollection', 'other', 'Secret', 'secret', 1)`,
    );
    put(
      `INSERT INTO bulk_change (id, studio_id, kind, summary, fills, created_at) VALUES ('ochange', 'other', 'replaced', 'Secret', '{"fills":[],"pages":[]}', 1)`,
    );
    put(`INSERT INTO font VALUES ('ofont', 'other', 'Secret', 'OFL', x'00', 1)`);
    put(`INSERT INTO press_profile VALUES ('oprofile', 'other', 'Secret', x'00', 1)`);
    put(
      `INSERT INTO strike_off (id, studio_id, project_id, layout_id, shape_id, name, sheet, created_at, updated_at) VALUES ('ostrike', 'other', 'oproject', 'olayout', 's', 'Secret', '{}', 1, 1)`,
    );
    put(
      `INSERT INTO mockup (id, studio_id, project_id, name, name_key, body, created_at, updated_at) VALUES ('omockup', 'other', 'oproject', 'Secret', 'secret', '{}', 1, 1)`,
    );
    put(
      `INSERT INTO client_sheet (id, studio_id, project_id, name, name_key, body, created_at, updated_at) VALUES ('osheet', 'other', 'oproject', 'Secret', 'secret', '{}', 1, 1)`,
    );
    put(
      `INSERT INTO photo_object (id, studio_id, name, name_key, body, created_at) VALUES ('ophoto', 'other', 'Secret', 'secret', '{}', 1)`,
    );
    put(
      `INSERT INTO person (id, studio_id, name, email, role, colour, created_at) VALUES ('operson', 'other', 'Secret', 's@x.example', 'owner', '#000000', 1)`,
    );
    const event = other
      .prepare(
        `INSERT INTO event (studio_id, kind, subject_id, data, created_at) VALUES ('other', 'project.restored', 'oproject', '{"name":"Secret"}', 1)`,
      )
      .run().lastInsertRowid;
    const counts = (): unknown[] =>
      [
        'project',
        'layout',
        'pattern',
        'palette',
        'collection',
        'font',
        'strike_off',
        'mockup',
        'client_sheet',
      ].map((table) => other.prepare(`SELECT * FROM ${table} WHERE studio_id = 'other'`).all());
    const before = counts();
    const ids: Record<string, string> = {
      ...{ projects: 'oproject', layouts: 'olayout', patterns: 'opattern', palettes: 'opalette' },
      ...{ collections: 'ocollection', changes: 'ochange', fonts: 'ofont', 'press-profiles': 'oprofile' },
      ...{
        'strike-offs': 'ostrike',
        'mock-ups': 'omockup',
        'client-sheets': 'osheet',
        'photo-objects': 'ophoto',
        ...{ people: 'operson', activity: String(event) },
      },
    };
    let walked = 0;
    for (const [name, route] of routes) {
      const id = ids[route.path.split('/')[1] ?? ''];
      if (id === undefined || !route.path.includes('{id}')) continue;
      walked += 1;
      const body = route.body ? { base: 1, name: 'x', archived: true } : undefined;
      const { status, body: said } = await ask('owner', route.method, addressOf(route, id), body);
      // Bodies that cannot be read are told before anything is looked up; nothing of the other studio is told in any case.
      expect({ name, ok: status >= 400, leaks: JSON.stringify(said).includes('Secret') }).toEqual({
        name,
        ok: true,
        leaks: false,
      });
    }
    expect(walked).toBeGreaterThan(40);
    for (const path of [
      '/projects',
      '/patterns',
      '/palettes',
      '/fonts',
      '/press-profiles',
      '/photo-objects',
      '/people',
      '/library',
      '/changes',
      '/activity',
      '/activity?project=oproject',
    ])
      expect(JSON.stringify((await ask('owner', 'GET', path)).body), path).not.toContain('Secret');
    expect(counts()).toEqual(before);
    other.close();
  }, 60_000);

  it('a closed project is not there for those who are not named in it, also where it uses a pattern', async () => {
    const art = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
    const pattern = await must('designer', 'POST', '/patterns', { name: 'Seen by all', recipe: art });
    await must('designer', 'POST', `/patterns/${String(pattern.body.id)}/revisions`, {
      base: pattern.body.version,
    });
    const project = String((await must('owner', 'POST', '/projects', { name: 'Kept close' })).body.id);
    const layout = await must('owner', 'POST', `/projects/${project}/layouts`, {
      ...{ name: 'Kept sign', width: 100, height: 100, measure: 'px' },
    });
    await must('owner', 'POST', `/layouts/${String(layout.body.id)}/changes`, {
      base: layout.body.version,
      changes: [
        {
          do: 'put-shape',
          shape: {
            ...filledShape(
              { x: 0, y: 0, width: 50, height: 50 },
              { id: 'keptf', pattern: String(pattern.body.id) },
            ),
            id: 'kept',
          },
        },
      ],
    });
    const people = await studio.people();
    const idOf = (role: Role): string => people.find((one) => one.role === role)?.id ?? '';
    await must('owner', 'PUT', `/projects/${project}/people`, {
      closed: true,
      people: [idOf('contributor')],
    });
    for (const as of ['designer', 'viewer'] as const) {
      for (const path of [
        `/projects/${project}`,
        `/layouts/${String(layout.body.id)}`,
        `/layouts/${String(layout.body.id)}/svg`,
      ])
        expect((await ask(as, 'GET', path)).status, path).toBe(404);
      const page = await fetch(`${studio.address}/projects/${project}/layouts/${String(layout.body.id)}`, {
        headers: { cookie: studio.cookies.get(as) ?? '' },
      });
      expect([page.status, (await page.text()).includes('Kept sign')]).toEqual([404, false]);
      for (const path of [
        '/projects',
        '/library',
        `/patterns/${String(pattern.body.id)}`,
        `/patterns/${String(pattern.body.id)}/uses`,
      ])
        expect(JSON.stringify((await must(as, 'GET', path)).body), path).not.toMatch(/Kept (close|sign)/);
    }
    // Those who are named in it work there; owners see everything.
    for (const as of ['contributor', 'owner'] as const)
      await must(as, 'GET', `/layouts/${String(layout.body.id)}`);
    const changed = { base: 2, changes: [{ do: 'page', margin: 5 }] };
    await must('contributor', 'POST', `/layouts/${String(layout.body.id)}/changes`, changed);
    // Once it is open again, a designer who is not named in it finds it.
    await must('owner', 'PUT', `/projects/${project}/people`, { closed: false, people: [] });
    await must('designer', 'GET', `/projects/${project}`);
    const refused = await ask('contributor', 'POST', `/layouts/${String(layout.body.id)}/changes`, {
      ...changed,
      base: 3,
    });
    expect([refused.status, refused.body.message]).toEqual([403, expect.stringMatching(/named in/)]);
  });

  it('contributors propose patterns and change only their own proposals', async () => {
    const art = recipe({ motifs: [block('b', 10, 10)], placings: [place('b', 5, 5)] });
    const own = await must('contributor', 'POST', '/patterns', { name: 'A proposal', recipe: art });
    const saved = await must('contributor', 'PUT', `/patterns/${String(own.body.id)}/draft`, {
      base: own.body.version,
      recipe: art,
    });
    expect(
      (await ask('contributor', 'POST', `/patterns/${String(own.body.id)}/revisions`, { base: 1 })).status,
    ).toBe(403);
    await must('designer', 'POST', `/patterns/${String(own.body.id)}/revisions`, {
      base: saved.body.version,
    });
    const late = await ask('contributor', 'PUT', `/patterns/${String(own.body.id)}/draft`, {
      base: 3,
      recipe: art,
    });
    expect([late.status, late.body.code]).toEqual([403, 'forbidden']);
    const others = await must('designer', 'POST', '/patterns', { name: 'Of a designer', recipe: art });
    expect(
      (await ask('contributor', 'PUT', `/patterns/${String(others.body.id)}/draft`, { base: 1, recipe: art }))
        .status,
    ).toBe(403);
  });
});
