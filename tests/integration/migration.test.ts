import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openDatabase } from '../../src/lib/server/db/open';
import { factsOf } from '../../src/lib/server/repo/pattern-rows';
import { findPatterns } from '../../src/lib/server/repo/find';
import { getLayout } from '../../src/lib/server/repo/layouts';
import { getProject } from '../../src/lib/server/repo/projects';
import { listPalettes } from '../../src/lib/server/repo/palettes';
import { PLAIN, need, patternOf } from '../support/studio';

const folder = mkdtempSync(join(tmpdir(), 'isle-migration-'));
const file = join(folder, 'isle.db');

/** A database as the release before the library work left it: its first two migrations, and rows as it wrote them. */
beforeAll(() => {
  const migrations = join(folder, 'drizzle');
  cpSync('drizzle', migrations, { recursive: true });
  const journal = join(migrations, 'meta', '_journal.json');
  const held = JSON.parse(readFileSync(journal, 'utf8')) as { entries: unknown[] };
  writeFileSync(journal, JSON.stringify({ ...held, entries: held.entries.slice(0, 2) }));
  const client = new Database(file);
  migrate(drizzle(client), { migrationsFolder: migrations });
  const run = (sql: string, ...values: unknown[]) => client.prepare(sql).run(...values);
  run(`INSERT INTO studio VALUES ('studio', 'Studio', 1)`);
  run(`INSERT INTO palette VALUES ('pal', 'studio', 'Sea', 'sea', 1, 1, 1, NULL)`);
  run(`INSERT INTO palette_colour VALUES ('c', 'studio', 'pal', 0, 'Deep', '#102030')`);
  for (const [id, name] of [
    ['p', 'Awning'],
    ['q', 'Bouée'],
  ] as const) {
    run(
      `INSERT INTO pattern (id, studio_id, name, name_key, description, stock, newest, version, created_at, updated_at) VALUES (?, 'studio', ?, ?, 'Stripes of cloth', 0, 1, 1, 5, 5)`,
      id,
      name,
      name.toLowerCase(),
    );
    run(
      `INSERT INTO revision VALUES (?, 1, 'studio', ?, 2, ?, NULL, 5)`,
      id,
      JSON.stringify(PLAIN),
      JSON.stringify(factsOf(PLAIN)),
    );
  }
  run(`INSERT INTO project VALUES ('job', 'studio', 'Job', 'job', 1, 1, 1, NULL)`);
  run(
    `INSERT INTO layout VALUES ('l', 'studio', 'job', 'L', 'l', 100, 100, 'px', 96, '#ffffff', 1, 1, 9, NULL)`,
  );
  run(`INSERT INTO shape VALUES ('s', 'studio', 'l', 0, 'Shape', '{"kind":"ellipse"}', 0, 0, 9, 9, 0)`);
  run(
    `INSERT INTO fill (id, studio_id, shape_id, position, kind, version, opacity, pattern_id, colours) VALUES ('f', 'studio', 's', 0, 'pattern', 1, 1, 'p', '{"ink":"#ff0000"}')`,
  );
  client.close();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('a database of the release before', () => {
  it('is brought along: facts, colours, search, uses and fills', () => {
    const db = openDatabase(file);
    const names = (query: Parameters<typeof findPatterns>[1]) =>
      findPatterns(db, query).patterns.map(({ name }) => name);
    expect(names({ search: 'cloth' }).sort()).toEqual(['Awning', 'Bouée']);
    expect(names({ search: 'bouee' })).toEqual(['Bouée']);
    expect(names({ colour: '#102030', near: 1 }).sort()).toEqual(['Awning', 'Bouée']);
    expect(names({ sort: 'last-used' })[0]).toBe('Awning');
    expect(findPatterns(db, { ground: 'clear', coloursLeast: 2, kind: 'drawn' }).total).toBe(2);
    expect(patternOf(db, 'p')).toMatchObject({
      uses: 1,
      tags: [],
      lastUsedAt: 9,
      facts: { unit: PLAIN.unit },
    });
    expect(need(getLayout(db, 'l')).shapes[0]?.fills[0]).toMatchObject({
      version: 3,
      blend: 'normal',
      shown: true,
      reflectX: false,
      anchored: 'shape',
      wash: null,
      colourway: null,
      colours: { ink: { colour: '#ff0000' } },
    });
    expect(listPalettes(db)).toMatchObject([{ projectId: null, colours: [{ id: 'c', hex: '#102030' }] }]);
    // A project takes the unit that its layout was measured in.
    expect(need(getProject(db, 'job')).measure).toBe('px');
    db.$client.close();
  });
});
