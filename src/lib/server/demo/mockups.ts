import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { and, eq } from 'drizzle-orm';
import {
  freshMockup,
  freshStanding,
  type Camera,
  type Mockup,
  type Standing,
} from '../../core/mockup/mockup';
import type { ObjectKind } from '../../core/mockup/objects';
import type { ObjectNumbers } from '../../core/mockup/object-entry';
import { freshSheet, type SheetItem } from '../../core/sheet/client-sheet';
import type { Db } from '../db/open';
import { colourway, layout, palette, pattern, project } from '../db/schema';
import { newId } from '../repo/context';
import { createSheet } from '../repo/client-sheets';
import { createMockup, keepStill } from '../repo/mockups';
import { listPhotoObjects } from '../repo/photo-objects';
import { appRoot } from '../root';
import { need } from './need';
import { keepStockPhotos } from './photo-objects';

/** What the demo's mock-ups are made with: ids by names. */
type World = {
  layout: (name: string) => string;
  colourway: (pattern: string, name: string) => string;
  photo: (name: string) => Mockup;
};
type DemoMockup = { project: string; name: string; body: (world: World) => Mockup };

type Place = Partial<Pick<Standing, 'x' | 'z' | 'turn' | 'bare' | 'material' | 'name' | 'colourway'>> & {
  numbers?: ObjectNumbers;
};
const object = (kind: ObjectKind, shows: string | null, { numbers, ...place }: Place = {}): Standing => {
  const fresh = freshStanding(newId(), kind);
  const own = { ...fresh.object, numbers: { ...fresh.object.numbers, ...numbers } };
  return { ...fresh, object: own, layout: shows, ...place };
};
const seen = (
  objects: Standing[],
  ground: string,
  camera: Partial<Camera>,
  more: Partial<Mockup> = {},
): Mockup => {
  const body = freshMockup(objects);
  return { ...body, ground, camera: { ...body.camera, ...camera }, ...more };
};
const CUP = { top: 80, bottom: 56, height: 94 };

export const DEMO_MOCKUPS: readonly DemoMockup[] = [
  {
    ...{ project: 'Marrowby Lido', name: 'Kiosk set' },
    body: ({ layout: shows }) =>
      seen(
        [
          object('cup', shows('Kiosk cup'), { numbers: CUP, x: -150, z: 60, turn: 8 }),
          object('bag', shows('Kiosk bag'), {
            ...{
              numbers: { width: 200, depth: 90, height: 230, flap: 20, turn: 40 },
              x: -5,
              z: -50,
              turn: 6,
            },
          }),
          object('wrap', shows('Kiosk parcel'), {
            ...{ numbers: { width: 150, depth: 105, height: 70, overlap: 25 }, x: 158, z: 45, turn: -22 },
          }),
        ],
        '#d9dedb',
        { turn: 12, raised: 13, zoom: 1.22 },
        {
          views: [
            {
              ...{ id: newId(), name: 'The cup alone' },
              camera: { turn: 12, raised: 16, zoom: 3.2, x: 0.94, y: -0.34 },
            },
          ],
        },
      ),
  },
  {
    ...{ project: 'Marrowby Lido', name: 'Three cups' },
    body: ({ layout: shows, colourway: way }) =>
      seen(
        ([null, 'Evening swim', 'Sun cream'] as const).map((name, at) =>
          object('cup', shows('Kiosk cup'), {
            ...{ numbers: CUP, x: (at - 1) * 112, name: `Paper cup, ${name ?? 'as it is'}` },
            colourway: name === null ? null : way('Lane Line', name),
          }),
        ),
        '#e4dccd',
        { turn: 0, raised: 10, zoom: 1.12 },
        { light: 'even' },
      ),
  },
  {
    ...{ project: 'Marrowby Lido', name: 'Towel and tote' },
    body: ({ layout: shows }) =>
      seen(
        [
          object('towel', shows('Beach towel'), {
            numbers: { width: 700, height: 1000, back: 140 },
            x: -260,
          }),
          object('tote', shows('Tote bag'), {
            ...{ numbers: { width: 380, height: 420, handle: 210 }, x: 480, z: 190, turn: -14 },
          }),
        ],
        '#d3dcdd',
        { turn: 16, raised: 11, zoom: 1.25 },
      ),
  },
  {
    ...{ project: 'Marrowby Lido', name: 'Mug on a table' },
    body: ({ layout: shows, photo }) => showing(photo('Mug on a table'), shows('Mug wall')),
  },
  {
    ...{ project: 'Marrowby Lido', name: 'Poster on the floor' },
    body: ({ layout: shows, photo }) => showing(photo('Frame on a floor'), shows('Winter swim')),
  },
  {
    ...{ project: 'Fennick Night Ferry', name: 'Ferry shop' },
    body: ({ layout: shows }) =>
      seen(
        [
          object('box', shows('Shop box'), {
            ...{ numbers: { width: 160, depth: 110, height: 80, flap: 18 }, x: -70, z: -20, turn: 18 },
          }),
          object('label', shows('Lemonade label'), { x: 92, z: -30, turn: -6 }),
          object('cards', shows('Cabin card'), {
            ...{ numbers: { width: 86, height: 54, pile: 12 }, x: 75, z: 125, turn: 12 },
          }),
        ],
        '#c7cdd2',
        { turn: 10, raised: 17, zoom: 1.2 },
      ),
  },
  {
    ...{ project: 'Fennick Night Ferry', name: 'Deck blanket' },
    body: ({ layout: shows }) =>
      seen(
        [object('cloth', shows('Deck blanket'), { numbers: { width: 1300, height: 900 }, material: 'felt' })],
        '#cfd3d0',
        { turn: -14, raised: 8, zoom: 1.2 },
      ),
  },
  {
    ...{ project: 'Lantern Row Book Fair', name: 'Fair window' },
    body: ({ layout: shows }) =>
      seen(
        [
          object('poster', shows('Poster'), {
            ...{ numbers: { width: 297, height: 420, frame: 14 }, x: -170, z: -120, turn: 12 },
          }),
          object('wrap', shows('Wrapping sheet'), {
            ...{ numbers: { width: 420, depth: 250, height: 80, overlap: 40 }, x: 190, z: 90, turn: -18 },
          }),
        ],
        '#ded5c4',
        { turn: 4, raised: 14, zoom: 1.2 },
      ),
  },
];

const showing = (body: Mockup, shows: string): Mockup => ({
  ...body,
  objects: body.objects.map((one) => ({ ...one, layout: shows })),
});

/** The picture of a mock-up of the demo, as `npm run photos -- stills` keeps it. */
export const stillFile = (name: string): string => `mock-up-${name.toLowerCase().replaceAll(' ', '-')}.webp`;

/** The mock-ups of the demo with their pictures, and a client sheet. */
export function seedMockups(db: Db, patterns: ReadonlyMap<string, string>): void {
  keepStockPhotos(db);
  const photos = new Map(listPhotoObjects(db).map(({ name, body }) => [name, body]));
  const projects = new Map(
    db
      .select({ id: project.id, name: project.name })
      .from(project)
      .all()
      .map(({ id, name }) => [name, id]),
  );
  const made = new Map<string, string>();
  for (const { project: of, name, body } of DEMO_MOCKUPS) {
    const projectId = projects.get(of) ?? '';
    const world: World = {
      layout: (title) => layoutNamed(db, projectId, title),
      colourway: (title, way) => colourwayNamed(db, patterns.get(title) ?? '', way),
      photo: (title) => photos.get(title)!,
    };
    const { id } = need(createMockup(db, projectId, { name, body: body(world) }));
    made.set(name, id);
    const file = join(appRoot(), 'photos', stillFile(name));
    if (existsSync(file)) {
      const picture = { bytes: readFileSync(file), mediaType: 'image/webp', width: 1200, height: 800 };
      need(keepStill(db, id, picture));
    }
  }
  seedSheet(db, projects.get('Marrowby Lido') ?? '', made, patterns);
}

/** What the lido's board is shown. */
function seedSheet(
  db: Db,
  projectId: string,
  mockups: ReadonlyMap<string, string>,
  patterns: ReadonlyMap<string, string>,
): void {
  const colours = db
    .select({ id: palette.id })
    .from(palette)
    .where(eq(palette.name, 'Marrowby and neighbours'))
    .get();
  const item = (
    kind: SheetItem['kind'],
    of: string | undefined,
    width: SheetItem['width'],
    caption = '',
  ): SheetItem => ({ id: newId(), kind, of: of ?? '', width, caption });
  need(
    createSheet(db, projectId, {
      name: 'For the board',
      body: {
        ...freshSheet('Marrowby Lido: the summer kiosk'),
        words:
          'Everything that is handed over the counter, in the colours of the pool. Please choose one of the three cups, and say whether the towel is bold enough to be found again on a full lawn.',
        items: [
          item(
            'mock-up',
            mockups.get('Kiosk set'),
            'half',
            'Cup, bag and parcel as they stand on the counter.',
          ),
          item('mock-up', mockups.get('Three cups'), 'half', 'As it is, Evening swim, Sun cream.'),
          item('pattern', patterns.get('Lane Line'), 'third', 'On the cups.'),
          item('pattern', patterns.get('Gull Drift'), 'third', 'On the bag.'),
          item('pattern', patterns.get('Awning'), 'third', 'On what is wrapped.'),
          item('mock-up', mockups.get('Towel and tote'), 'half', 'To be sold at the gate.'),
          item('mock-up', mockups.get('Mug on a table'), 'half', 'For the lifeguards.'),
          item('palette', colours?.id, 'whole'),
        ],
      },
    }),
  );
}

function layoutNamed(db: Db, projectId: string, name: string): string {
  const row = db
    .select({ id: layout.id })
    .from(layout)
    .where(and(eq(layout.projectId, projectId), eq(layout.name, name)))
    .get();
  if (!row) throw new Error(`The demo has no layout “${name}”.`);
  return row.id;
}

function colourwayNamed(db: Db, patternId: string, name: string): string {
  const row = db
    .select({ id: colourway.id })
    .from(colourway)
    .innerJoin(pattern, eq(pattern.id, colourway.patternId))
    .where(and(eq(colourway.patternId, patternId), eq(colourway.name, name)))
    .get();
  if (!row) throw new Error(`The demo has no colourway “${name}”.`);
  return row.id;
}
