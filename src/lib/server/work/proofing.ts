import type { LayoutNotes } from '../../contract/data';
import { done, type Outcome } from '../../contract/failure';
import { NO_INKS } from '../../core/colour/inks';
import type { ProofContext } from '../../core/proof/context';
import type { ProofSettings } from '../../core/proof/limits';
import { Proof } from '../../core/proof/proof';
import type { Db } from '../db/open';
import { inksInUse } from '../repo/layout-inks';
import { getLayout, layoutInUse, lookupOf } from '../repo/layouts';
import { layoutsOf, projectPress, projectProof } from '../repo/projects';
import { pressOf } from './press/plates';
import { pressView } from './press/table';

/** What a proof says of each layout of a project, by the limits of the project. */
export async function proofProject(db: Db, project: string): Promise<Outcome<{ layouts: LayoutNotes[] }>> {
  const settings = projectProof(db, project);
  const printed = settings.medium === 'print';
  const by = projectPress(db, project);
  const opened = printed ? await pressOf(db, by) : done(null);
  if (!opened.ok) return opened;
  const press = opened.value;
  try {
    return proofLayouts(db, project, settings, press && { view: pressView(press), inkLimit: by.inkLimit });
  } finally {
    press?.close();
  }
}

function proofLayouts(
  db: Db,
  project: string,
  settings: ProofSettings,
  press: ProofContext['press'],
): Outcome<{ layouts: LayoutNotes[] }> {
  const layouts: LayoutNotes[] = [];
  for (const { id, name } of layoutsOf(db, project)) {
    const layout = getLayout(db, id);
    if (!layout.ok) return layout;
    const used = layoutInUse(db, layout.value);
    const { patterns } = used;
    const context: ProofContext = {
      limits: settings[settings.medium],
      lookup: lookupOf(used),
      patterns: new Map(patterns.map((pattern) => [pattern.id, pattern])),
      inks: settings.medium === 'print' ? inksInUse(db, [used]) : NO_INKS,
      press,
      object: layout.value.object ?? null,
    };
    const notes = new Proof().notes(layout.value, context).map(({ mend: _mend, ...note }) => note);
    layouts.push({ id, name, notes });
  }
  return done({ layouts });
}
