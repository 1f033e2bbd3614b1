import { mkdirSync, rmSync } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { ExportJob, ParcelContents } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import type { Ask } from '../../contract/work';
import { pixelSize } from '../../core/num/length';
import { LIMITS } from '../../core/recipe/limits';
import type { Processes, RunOptions } from '../processes/pool';

/** A picture: a layout or a sheet, its page in CSS px, and what its file is called. */
export type ExportPlan = {
  page: { width: number; height: number };
  ppi: number;
  name: string;
  draw:
    | { work: 'layoutPng' | 'platesFile'; ask: Omit<Ask<'layoutPng'>, 'path' | 'ppi'> }
    | { work: 'sheetPng'; ask: Omit<Ask<'sheetPng'>, 'path' | 'ppi'> };
};

/** A parcel, and who is told what it holds. */
export type ParcelPlan = {
  name: string;
  ask: Omit<Ask<'parcel'>, 'path'>;
  made: (contents: ParcelContents) => void;
};

/** Who wants a file: their job is nobody else's, and their view has its turn. */
export type Wanting = { person: string; asker: string };

/** Pictures and parcels: each is a job with progress that can be stopped; its file is kept for an hour, for whoever started it. */
export type Exports = {
  start(plan: ExportPlan, by: Wanting): Outcome<ExportJob>;
  parcel(plan: ParcelPlan, by: Wanting): Outcome<ExportJob>;
  get(id: string, person: string): Outcome<ExportJob>;
  cancel(id: string, person: string): Promise<Outcome<ExportJob>>;
  file(id: string, person: string): Outcome<{ path: string; job: ExportJob }>;
};

type Running = {
  person: string;
  job: ExportJob;
  abort: AbortController;
  path: string;
  finished: Promise<void>;
};

const KEEP_MS = 3_600_000;
/** Bytes of finished files that are kept; the oldest go first. */
const MOST_BYTES = 4_000_000_000;

/** Keeps export jobs in memory and their files in `folder`, which is emptied first: this server alone writes there. */
export function openExports(processes: Processes, folder: string): Exports {
  const jobs = new Map<string, Running>();
  rmSync(folder, { recursive: true, force: true });
  const find = (id: string, person: string): Running | null => {
    const running = jobs.get(id);
    return running?.person === person ? running : null;
  };
  const missing = (id: string): ReturnType<typeof fail> =>
    fail('not_found', `There is no export “${id}”; files are kept for an hour. Export again.`, 'id');
  const forget = (id: string): void => {
    const running = jobs.get(id);
    jobs.delete(id);
    if (running) void rm(running.path, { force: true });
  };
  const makeRoom = (): void => {
    let bytes = [...jobs.values()].reduce((sum, { job }) => sum + job.bytes, 0);
    for (const [id, { job }] of jobs) {
      if (bytes <= MOST_BYTES) return;
      if (job.state !== 'done') continue;
      bytes -= job.bytes;
      forget(id);
    }
  };

  /** Starts a job; `draw` writes the file and answers how many bytes it has. */
  function begin(
    about: Pick<ExportJob, 'fileName' | 'mediaType' | 'width' | 'height' | 'ppi'>,
    what: string,
    { person, asker }: Wanting,
    draw: (path: string, options: RunOptions) => Promise<Outcome<{ bytes: number }>>,
  ): Outcome<ExportJob> {
    mkdirSync(folder, { recursive: true });
    makeRoom();
    const id = nanoid(12);
    const job: ExportJob = {
      id,
      state: 'waiting',
      ahead: null,
      progress: 0,
      ...about,
      bytes: 0,
      message: '',
    };
    const path = join(folder, id);
    const abort = new AbortController();
    const drawing = draw(path, {
      asker,
      signal: abort.signal,
      progress: (share: number) => void (job.progress = share),
      ahead: (count: number | null) => {
        job.ahead = count;
        if (count === null) job.state = 'running';
      },
    });
    const finished = drawing.then(async (drawn) => {
      if (drawn.ok) {
        job.bytes = drawn.value.bytes;
        job.progress = 1;
        job.state = 'done';
        return;
      }
      for (const part of [path, `${path}.part`])
        await rm(part, { recursive: true, force: true }).catch(() => undefined);
      job.state = drawn.failure.code === 'cancelled' ? 'cancelled' : 'failed';
      job.message = job.state === 'cancelled' ? `The ${what} was stopped.` : drawn.failure.message;
    });
    jobs.set(id, { person, job, abort, path, finished });
    setTimeout(() => forget(id), KEEP_MS).unref();
    return done({ ...job });
  }

  return {
    start({ page, ppi, name, draw }, by) {
      const size = pixelSize(page, ppi);
      const refused = tooLarge(size, ppi);
      if (refused) return refused;
      const plates = draw.work === 'platesFile';
      const stem = `${fileStem(name, 'layout')} ${plates ? 'plates ' : ''}${Math.round(ppi)} ppi`;
      const file = plates
        ? { fileName: `${stem}.zip`, mediaType: 'application/zip' }
        : { fileName: `${stem}.png`, mediaType: 'image/png' };
      return begin({ ...size, ppi, ...file }, 'export', by, (path, options) =>
        draw.work === 'sheetPng'
          ? processes.run('sheetPng', { ...draw.ask, ppi, path }, options)
          : processes.run(draw.work, { ...draw.ask, ppi, path }, options),
      );
    },
    parcel({ name, ask, made }, by) {
      const about = { fileName: `${fileStem(name, 'project')} parcel.zip`, mediaType: 'application/zip' };
      const none = { width: 0, height: 0, ppi: 0 };
      return begin({ ...about, ...none }, 'parcel', by, async (path, options) => {
        const written = await processes.run('parcel', { ...ask, path }, options);
        if (!written.ok) return written;
        made(written.value);
        return done({ bytes: (await stat(path)).size });
      });
    },
    get(id, person) {
      const found = find(id, person);
      return found ? done({ ...found.job }) : missing(id);
    },
    async cancel(id, person) {
      const found = find(id, person);
      if (!found) return missing(id);
      found.abort.abort();
      await found.finished;
      return done({ ...found.job });
    },
    file(id, person) {
      const found = find(id, person);
      if (!found) return missing(id);
      if (found.job.state !== 'done')
        return fail('invalid', 'The export is not finished yet; ask again when it is done.', 'id');
      return done({ path: found.path, job: found.job });
    },
  };
}

const fileStem = (name: string, otherwise: string): string =>
  name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || otherwise;

function tooLarge(
  { width, height }: { width: number; height: number },
  ppi: number,
): ReturnType<typeof fail> | null {
  if (width <= LIMITS.exportSide && height <= LIMITS.exportSide && width * height <= LIMITS.exportPixels)
    return null;
  const most = Math.floor(
    Math.min(
      ppi * Math.sqrt(LIMITS.exportPixels / (width * height)),
      (ppi * LIMITS.exportSide) / Math.max(width, height),
    ),
  );
  return fail(
    'too_large',
    `At ${ppi} ppi the picture would be ${width} × ${height} px; at most ${LIMITS.exportPixels / 1e6} million pixels and ${LIMITS.exportSide} px a side are drawn. Up to ${most} ppi works for this layout.`,
    'ppi',
  );
}
