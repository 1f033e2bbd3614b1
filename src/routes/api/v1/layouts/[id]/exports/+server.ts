import { api } from '$lib/server/app/http';
import { pageOf } from '$lib/server/repo/layouts';

export const POST = api('startExport', ({ app, db, person, params, body, asking }) => {
  const found = pageOf(db, params.id);
  if (!found.ok) return found;
  const { name, width, height, bleed } = found.value;
  const round = body.bleed ? 2 * bleed : 0;
  return app.exports.start(
    {
      page: { width: width + round, height: height + round },
      ppi: body.ppi,
      name,
      draw: {
        work: body.as === 'plates' ? 'platesFile' : 'layoutPng',
        ask: { store: app.store, layout: params.id, bleed: body.bleed },
      },
    },
    { person: person.id, asker: asking.asker },
  );
});
