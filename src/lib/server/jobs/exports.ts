import { createWriteStream } from 'node:fs';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { once } from 'node:events';
import { finished } from 'node:stream/promises';
import { nanoid } from 'nanoid';
import type { ExportJob } from '../../contract/data';
import { done, fail, type Outcome } from '../../contract/failure';
import { devicePixels } from '../../core/num/length';
import { LIMITS } from '../../core/recipe/limits';
import type { LayoutScene } from '../../core/scene/layout';
import { renderPng, type PictureSource, type PixelSource } from '../render/png';
import type { RenderPool } from '../render/pool';

/** PNG exports: each is a job with progress that can be stopped; its file is kept for an hour. */
export type Exports = {
  start(scene: LayoutScene, ppi: number, name: string): Outcome<ExportJob>;
  get(id: string): Outcome<ExportJob>;
  cancel(id: string): Promise<Outcome<ExportJob>>;
  file(id: string): Outcome<{ path: string; job: ExportJob }>;
};

/** Where the pictures of a scene come from: those that drawings show, and those that fills sample. */
export type ScenePictures = {
  forScene: (scene: LayoutScene) => Promise<PictureSource>;
  pixels: PixelSource;
};

type Pictures = { pictures: ScenePictures };
type Running = { job: ExportJob; abort: AbortController; path: string; finished: Promise<void> };

const KEEP_MS = 3_600_000;

/** Keeps export jobs in memory and their files in `folder`, which is emptied first. `pictures` readies those of a scene. */
export function openExports(pool: RenderPool, folder: string, pictures: ScenePictures): Exports {
  const jobs = new Map<string, Running>();
  const ready = rm(folder, { recursive: true, force: true }).then(() => mkdir(folder, { recursive: true }));
  const find = (id: string): Running | null => jobs.get(id) ?? null;
  const missing = (id: string): ReturnType<typeof fail> =>
    fail('not_found', `There is no export “${id}”; files are kept for an hour. Export again.`, 'id');

  return {
    start(scene, ppi, name) {
      const width = Math.max(1, Math.round(devicePixels(scene.width, ppi)));
      const height = Math.max(1, Math.round(devicePixels(scene.height, ppi)));
      const refused = tooLarge(width, height, ppi);
      if (refused) return refused;
      const id = nanoid(12);
      const fileName = `${name.replace(/[^\p{L}\p{N} _-]+/gu, '').trim() || 'layout'} ${Math.round(ppi)} ppi.png`;
      const job: ExportJob = {
        id,
        state: 'waiting',
        progress: 0,
        width,
        height,
        ppi,
        fileName,
        bytes: 0,
        message: '',
      };
      const path = join(folder, `${id}.png`);
      const abort = new AbortController();
      const finishedRun = ready.then(() => run(scene, pool, { job, abort, path, pictures }));
      jobs.set(id, { job, abort, path, finished: finishedRun });
      setTimeout(() => {
        jobs.delete(id);
        void rm(path, { force: true });
      }, KEEP_MS).unref();
      return done({ ...job });
    },
    get(id) {
      const found = find(id);
      return found ? done({ ...found.job }) : missing(id);
    },
    async cancel(id) {
      const found = find(id);
      if (!found) return missing(id);
      found.abort.abort();
      await found.finished;
      return done({ ...found.job });
    },
    file(id) {
      const found = find(id);
      if (!found) return missing(id);
      if (found.job.state !== 'done')
        return fail('invalid', 'The export is not finished yet; ask again when it is done.', 'id');
      return done({ path: found.path, job: found.job });
    },
  };
}

function tooLarge(width: number, height: number, ppi: number): ReturnType<typeof fail> | null {
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

async function run(
  scene: LayoutScene,
  pool: RenderPool,
  { job, abort, path, pictures }: Omit<Running, 'finished'> & Pictures,
): Promise<void> {
  const file = createWriteStream(path);
  try {
    job.state = 'running';
    await renderPng(scene, pool, {
      size: job,
      signal: abort.signal,
      picture: await pictures.forScene(scene),
      pixels: pictures.pixels,
      progress: (share) => (job.progress = share),
      write: async (bytes) => {
        job.bytes += bytes.length;
        if (!file.write(bytes)) await once(file, 'drain');
      },
    });
    file.end();
    await finished(file);
    job.state = 'done';
  } catch (error) {
    file.destroy();
    await rm(path, { force: true });
    job.state = abort.signal.aborted ? 'cancelled' : 'failed';
    job.message = abort.signal.aborted
      ? 'The export was stopped.'
      : 'The picture could not be drawn. Try a lower resolution, and tell us if it happens again.';
    if (!abort.signal.aborted) process.stderr.write(`export ${job.id} failed: ${String(error)}\n`);
  }
}
