import type { LayoutInUse } from '../../contract/data';
import type { Inks } from '../../core/colour/inks';
import { inksOfPages } from '../../core/scene/page-inks';
import type { Db } from '../db/open';
import { listPalettes } from './palettes';

/** The inks that layouts of one project are printed in. */
export function inksInUse(db: Db, used: readonly LayoutInUse[]): Inks {
  const project = used[0]?.layout.projectId ?? '';
  return inksOfPages(
    listPalettes(db, project),
    project,
    used.flatMap(({ layout, pages }) => [layout, ...pages]),
    used.flatMap(({ patterns }) => patterns),
  );
}
