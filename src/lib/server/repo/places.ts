import type { Db } from '../db/open';
import type { KindOfThing } from './access';
import { statement } from './rows';

/** What an id is the id of: its name, where it is, and what has to be reached to reach it. */
export type Place = { name: string; href: string | null; kind: KindOfThing | null; of: string };

type Named = { name: string; id: string; project: string | null };

const inProject = ({ project }: Named): string => `/projects/${project}`;

/** What can be met in events and comments: its table, by which column it is of a project, and where it is. */
const PLACES: readonly {
  table: string;
  project: string;
  href: (row: Named) => string;
  reach: (row: Named) => Pick<Place, 'kind' | 'of'>;
}[] = [
  {
    ...{ table: 'pattern', project: 'NULL', href: ({ id }) => `/library/${id}` },
    reach: ({ id }) => ({ kind: 'pattern', of: id }),
  },
  {
    ...{ table: 'layout', project: 'project_id', href: (row) => `${inProject(row)}/layouts/${row.id}` },
    reach: ({ id }) => ({ kind: 'layout', of: id }),
  },
  {
    ...{ table: 'project', project: 'id', href: inProject },
    reach: ({ id }) => ({ kind: 'project', of: id }),
  },
  { table: 'person', project: 'NULL', href: () => '/studio', reach: ({ id }) => ({ kind: null, of: id }) },
  {
    ...{ table: 'palette', project: 'NULL', href: ({ id }) => `/palettes?palette=${id}` },
    reach: ({ id }) => ({ kind: 'palette', of: id }),
  },
  {
    ...{ table: 'mockup', project: 'project_id', href: (row) => `${inProject(row)}/mock-ups/${row.id}` },
    reach: ({ id }) => ({ kind: 'mockup', of: id }),
  },
  {
    table: 'client_sheet',
    project: 'project_id',
    href: (row) => `${inProject(row)}/client-sheets/${row.id}`,
    reach: ({ id }) => ({ kind: 'sheet', of: id }),
  },
  {
    ...{ table: 'strike_off', project: 'project_id', href: inProject },
    reach: ({ id }) => ({ kind: 'strike-off', of: id }),
  },
];

const FIND = PLACES.map(
  ({ table, project }, at) =>
    `SELECT ${at} AS at, id, name, ${project} AS project FROM ${table} WHERE id = ?`,
).join(' UNION ALL ');

/** What an id is the id of, with its name and address; `null` for what is not there, or has no place of its own. */
export function placeOf(db: Db, id: string): Place | null {
  const row = statement(db, FIND).get(...PLACES.map(() => id)) as (Named & { at: number }) | undefined;
  const place = row && PLACES[row.at];
  if (!row || !place) return null;
  return { name: row.name, href: place.href(row), ...place.reach(row) };
}
