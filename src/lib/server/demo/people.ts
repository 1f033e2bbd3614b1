import { askedBy, type Db } from '../db/open';
import type { PersonData } from '../../contract/people';
import { setApproval } from '../repo/approvals';
import { addComment } from '../repo/comments';
import { addPerson, getPerson } from '../repo/people';
import { nameState } from '../repo/layout-states';
import { statement } from '../repo/rows';
import { need } from './need';

/** The made-up people of the demo’s studio. Nobody has a password: whoever opens the demo is the first of them, without signing in. */
const PEOPLE = [
  { name: 'Mara Quill', role: 'owner', email: null },
  { name: 'Jonas Reed', role: 'designer', email: 'jonas@pier.example' },
  { name: 'Ilse Brandt', role: 'contributor', email: 'ilse@pier.example' },
  { name: 'Pim Adeyo', role: 'viewer', email: 'pim@pier.example' },
] as const;

/** The people of the demo, before anything is made: what is made is theirs. Answers them by their first names. */
export function seedPeople(db: Db): Map<string, PersonData> {
  statement(db, 'UPDATE studio SET name = ? WHERE id = ?').run('Pier & Paper', db.studio);
  return new Map(
    PEOPLE.map((one) => {
      const id = addPerson(db, { ...one, password: null });
      return [one.name.split(' ')[0] ?? '', getPerson(db, id) as PersonData];
    }),
  );
}

const layoutNamed = (db: Db, name: string): string =>
  statement(db, 'SELECT id FROM layout WHERE name = ?').pluck().get(name) as string;
const patternNamed = (db: Db, name: string): string =>
  statement(db, 'SELECT id FROM pattern WHERE name = ?').pluck().get(name) as string;

/** What they said to each other about the demo’s layouts and patterns, and how far these are. */
export function seedTalk(db: Db, people: ReadonlyMap<string, PersonData>): void {
  const as = (name: string): { person: PersonData; at: Db } => {
    const person = people.get(name) as PersonData;
    return { person, at: askedBy(db, person.id) };
  };
  const say = (
    name: string,
    kind: 'layout' | 'pattern',
    id: string,
    words: string,
    more: object = {},
  ): string => {
    const { person, at } = as(name);
    const spot = { parentId: null, shapeId: null, x: null, y: null, ...more };
    return need(addComment(at, person, { kind, id, words, ...spot })).id;
  };
  const poster = layoutNamed(db, 'Poster');
  const cover = layoutNamed(db, 'Timetable cover');
  const first = say(
    'Pim',
    'layout',
    poster,
    'Could the lanterns at the foot be a little calmer? The line with the date gets lost.',
    {
      x: 560,
      y: 1130,
    },
  );
  say('Jonas', 'layout', poster, '@Pim Adeyo I took the scale down to 80 %. Better?', { parentId: first });
  say('Ilse', 'layout', poster, '@Mara Quill the violet is a spot ink now; please look at its plate.');
  say('Jonas', 'layout', cover, 'The bow wave ends on the trim. Move it up by 3 mm?', { x: 280, y: 640 });
  const rope = patternNamed(db, 'Rope Twist');
  if (rope) say('Ilse', 'pattern', rope, 'Wonderful at 20 %. Below that the highlights close up.');
  const mara = as('Mara');
  need(setApproval(mara.at, mara.person, { kind: 'layout', id: cover, state: 'approved' }));
  const jonas = as('Jonas');
  need(setApproval(jonas.at, jonas.person, { kind: 'layout', id: poster, state: 'asked' }));
  const { version } = statement(db, 'SELECT version FROM layout WHERE id = ?').get(poster) as {
    version: number;
  };
  need(nameState(mara.at, poster, version, 'As the client saw it'));
}
