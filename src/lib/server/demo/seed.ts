import { count, eq } from 'drizzle-orm';
import type { Outcome } from '../../contract/failure';
import type { Db } from '../db/open';
import { pattern } from '../db/schema';
import { newId } from '../repo/context';
import { applyChanges, createLayout } from '../repo/layouts';
import { createPalette, savePalette } from '../repo/palettes';
import { createPattern } from '../repo/patterns';
import { publish } from '../repo/publishing';
import { createProject } from '../repo/projects';
import { COLOURS } from './draw';
import { DEMO_PROJECTS } from './projects';
import { demoPatterns } from './patterns';

/** Fills an empty database with the demo world, through the same functions that the API uses. */
export function seedDemo(db: Db): void {
  const held = db.select({ count: count() }).from(pattern).get();
  if ((held?.count ?? 0) > 0) return;
  const palette = need(createPalette(db, 'Marrowby and neighbours'));
  const colours = Object.entries(COLOURS).map(([name, hex]) => ({ id: newId(), name, hex }));
  need(savePalette(db, palette.id, palette.version, { name: palette.name, colours }));
  const patternIds = new Map<string, string>();
  for (const plan of demoPatterns()) {
    const made = need(createPattern(db, plan));
    need(publish(db, made.id, made.version));
    if (plan.stock) db.update(pattern).set({ stock: true }).where(eq(pattern.id, made.id)).run();
    patternIds.set(plan.name, made.id);
  }
  for (const project of DEMO_PROJECTS) {
    const { id } = need(createProject(db, project.name));
    for (const { page, shapes } of project.layouts) {
      const layout = need(createLayout(db, id, page));
      const changes = shapes(patternIds).map((shape) => ({ do: 'put-shape' as const, shape }));
      need(applyChanges(db, layout.id, layout.version, changes));
    }
  }
}

function need<T>(outcome: Outcome<T>): T {
  if (!outcome.ok)
    throw new Error(`The demo data were refused: ${outcome.failure.message} (${outcome.failure.path})`);
  return outcome.value;
}
