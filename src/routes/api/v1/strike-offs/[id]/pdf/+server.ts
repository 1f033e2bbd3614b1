import { api } from '$lib/server/app/http';
import { pdfAnswer } from '$lib/server/app/pdf';

export const GET = api('strikeOffPdf', ({ app, params, query, asking }) =>
  pdfAnswer(app, (path) =>
    app.processes.run('sheetPdf', { store: app.store, sheet: params.id, ...query, path }, asking),
  ),
);
