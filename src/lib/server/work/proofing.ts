import type { LayoutNotes } from '../../contract/data';
import { done, type Outcome } from '../../contract/failure';
import type { ProofContext } from '../../core/proof/context';
import { Proof } from '../../core/proof/proof';
import { patternLookup } from '../../core/scene/library';
import type { Db } from '../db/open';
import { getLayout, layoutInUse } from '../repo/layouts';
import { layoutsOf, projectProof } from '../repo/projects';

/** What a proof says of each layout of a project, by the limits of the project. */
export function proofProject(db: Db, project: string): Outcome<{ layouts: LayoutNotes[] }> {
  const settings = projectProof(db, project);
  const layouts: LayoutNotes[] = [];
  for (const { id, name } of layoutsOf(db, project)) {
    const layout = getLayout(db, id);
    if (!layout.ok) return layout;
    const { patterns, pages } = layoutInUse(db, layout.value);
    const context: ProofContext = {
      limits: settings[settings.medium],
      lookup: patternLookup(patterns, new Map(pages.map((page) => [page.id, page]))),
      patterns: new Map(patterns.map((pattern) => [pattern.id, pattern])),
      object: layout.value.object ?? null,
    };
    const notes = new Proof().notes(layout.value, context).map(({ mend: _mend, ...note }) => note);
    layouts.push({ id, name, notes });
  }
  return done({ layouts });
}
