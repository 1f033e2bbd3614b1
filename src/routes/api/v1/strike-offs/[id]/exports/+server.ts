import { sheetPage } from '$lib/core/recipe/strike-off';
import { api } from '$lib/server/app/http';
import { getStrikeOff } from '$lib/server/repo/strike-offs';

export const POST = api('exportStrikeOff', ({ app, db, person, params, body, asking }) => {
  const found = getStrikeOff(db, params.id);
  if (!found.ok) return found;
  const { name, sheet } = found.value;
  const { width, height } = sheetPage(sheet, (id) => id).layout;
  return app.exports.start(
    {
      page: { width, height },
      ppi: body.ppi,
      name,
      draw: { work: 'sheetPng', ask: { store: app.store, sheet: params.id } },
    },
    { person: person.id, asker: asking.asker },
  );
});
