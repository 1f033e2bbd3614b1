import type { PatternFacts, PatternSummary } from '../../contract/data';
import { follow, mapSame, type Links } from '../../core/colour/tint';
import type { Db } from '../db/open';
import { paletteLinks } from './links';
import { statement } from './rows';

type Row = {
  id: string;
  name: string;
  description: string;
  author: string;
  source: string;
  licence: string;
  attribution: number;
  stock: number;
  kind: PatternSummary['kind'];
  newest: number;
  version: number;
  has_draft: number;
  archived_at: number | null;
  created_at: number;
  updated_at: number;
  last_used_at: number | null;
  metrics: string | null;
};

/** What lists show of patterns, in the order of `ids`; those that are gone are left out. */
export function summariesOf(db: Db, ids: readonly string[]): PatternSummary[] {
  if (ids.length === 0) return [];
  const list = JSON.stringify(ids);
  const all = <T>(sql: string): T[] => statement(db, sql).all(list) as T[];
  const rows = all<Row>(
    `SELECT p.id, p.name, p.description, p.author, p.source, p.licence, p.attribution, p.stock, p.kind, p.newest, p.version,
      p.draft IS NOT NULL AS has_draft, p.archived_at, p.created_at, p.updated_at, p.last_used_at, r.metrics
      FROM json_each(?) AS w JOIN pattern p ON p.id = w.value
      LEFT JOIN revision r ON r.pattern_id = p.id AND r.number = p.newest ORDER BY w.key`,
  );
  const uses = all<{ id: string; uses: number; projects: number }>(
    `SELECT f.pattern_id AS id, count(*) AS uses, count(DISTINCT l.project_id) AS projects FROM fill f
      JOIN shape s ON s.id = f.shape_id JOIN layout l ON l.id = s.layout_id
      WHERE f.pattern_id IN (SELECT value FROM json_each(?)) AND l.archived_at IS NULL GROUP BY f.pattern_id`,
  );
  const tags = grouped(
    all<{ id: string; text: string }>(
      'SELECT pattern_id AS id, tag AS text FROM pattern_tag WHERE pattern_id IN (SELECT value FROM json_each(?)) ORDER BY tag_key',
    ),
  );
  const collections = grouped(
    all<{ id: string; text: string }>(
      `SELECT m.pattern_id AS id, c.name AS text FROM collection_pattern m JOIN collection c ON c.id = m.collection_id
        WHERE m.pattern_id IN (SELECT value FROM json_each(?)) ORDER BY c.name_key`,
    ),
  );
  const used = new Map(uses.map((row) => [row.id, row]));
  const links = paletteLinks(db);
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    description: row.description,
    tags: tags.get(row.id) ?? [],
    collections: collections.get(row.id) ?? [],
    credit: {
      author: row.author,
      source: row.source,
      licence: row.licence,
      attribution: row.attribution === 1,
    },
    stock: row.stock === 1,
    kind: row.kind,
    newest: row.newest,
    version: row.version,
    hasDraft: row.has_draft === 1,
    archivedAt: row.archived_at,
    createdAt: row.created_at,
    updatedAt: row.updated_at,
    lastUsedAt: row.last_used_at,
    facts: row.metrics === null ? null : factsFrom(row.metrics, links),
    uses: used.get(row.id)?.uses ?? 0,
    projects: used.get(row.id)?.projects ?? 0,
  }));
}

/** Stored facts with the present colours of their links; those from before measured patterns have no kind. */
function factsFrom(json: string, links: Links): PatternFacts {
  const facts: PatternFacts = { kind: 'composed', ...(JSON.parse(json) as Omit<PatternFacts, 'kind'>) };
  return { ...facts, slots: mapSame(facts.slots, (slot) => follow(slot, links)) };
}

function grouped(rows: readonly { id: string; text: string }[]): Map<string, string[]> {
  const found = new Map<string, string[]>();
  for (const { id, text } of rows) {
    const held = found.get(id);
    if (held) held.push(text);
    else found.set(id, [text]);
  }
  return found;
}
