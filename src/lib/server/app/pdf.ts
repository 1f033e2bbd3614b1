import type { Outcome } from '../../contract/failure';
import type { App } from './app';
import { fileHeaders } from './files';
import { sentOnce } from './http';

/** A PDF that work writes to a file of its own, as an answer; the file goes where nothing was written. */
export async function pdfAnswer(
  app: App,
  write: (path: string) => Promise<Outcome<{ name: string }>>,
): Promise<Response | Extract<Outcome<never>, { ok: false }>> {
  const path = app.workFile();
  const drawn = await write(path);
  if (!drawn.ok) {
    app.forget(path);
    return drawn;
  }
  return sentOnce(path, fileHeaders({ fileName: `${drawn.value.name}.pdf`, mediaType: 'application/pdf' }));
}
