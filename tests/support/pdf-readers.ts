import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import type { Drawn } from './inside';

/** Programs of others that draw a PDF, each from Debian's packages: Poppler, MuPDF and Ghostscript. */
export const READERS = ['poppler', 'mupdf', 'ghostscript'] as const;
export type Reader = (typeof READERS)[number];

const COMMANDS: Record<Reader, (pdf: string, out: string, ppi: number) => [string, string[]]> = {
  poppler: (pdf, out, ppi) => ['pdftoppm', ['-png', '-r', String(ppi), pdf, join(out, 'page')]],
  mupdf: (pdf, out, ppi) => ['mutool', ['draw', '-q', '-r', String(ppi), '-o', join(out, 'page.png'), pdf]],
  ghostscript: (pdf, out, ppi) => [
    'gs',
    [
      ...['-q', '-dNOPAUSE', '-dBATCH', '-dSAFER', '-sDEVICE=png16m', `-r${ppi}`],
      ...['-dTextAlphaBits=4', '-dGraphicsAlphaBits=4', `-sOutputFile=${join(out, 'page.png')}`, pdf],
    ],
  ],
};

/** The first page of a PDF as a reader draws it on white. */
export async function drawnBy(reader: Reader, pdf: Uint8Array, ppi: number): Promise<Drawn> {
  return inFolder(pdf, async (file, folder) => {
    const [command, words] = COMMANDS[reader](file, folder, ppi);
    const { status, stderr } = spawnSync(command, words, { encoding: 'utf8', timeout: 60_000 });
    const page = readdirSync(folder).find((name) => name.endsWith('.png'));
    if (status !== 0 || !page) throw new Error(`${reader} did not draw it: ${stderr}`);
    // Debian builds MuPDF without colour management and says so each time.
    const said = stderr.replace('warning: ICC support is not available', '').trim();
    if (/error|warning/i.test(said)) throw new Error(`${reader} complains: ${said}`);
    const { data, info } = await sharp(readFileSync(join(folder, page)))
      .flatten({ background: '#ffffff' })
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, data: new Uint8Array(data) };
  });
}

/** What qpdf finds wrong with the structure of a PDF; "" where it finds nothing. */
export const faultsOf = (pdf: Uint8Array): Promise<string> =>
  inFolder(pdf, (file) => {
    const { status, stdout, stderr } = spawnSync('qpdf', ['--check', file], { encoding: 'utf8' });
    return Promise.resolve(status === 0 ? '' : `${stdout}${stderr}`);
  });

/** What Poppler's pdfinfo says of a PDF, by name. */
export const factsOf = (pdf: Uint8Array): Promise<Record<string, string>> =>
  inFolder(pdf, (file) => {
    const { stdout } = spawnSync('pdfinfo', ['-box', file], { encoding: 'utf8' });
    return Promise.resolve(
      Object.fromEntries(
        stdout
          .trim()
          .split('\n')
          .map((line) => [line.slice(0, line.indexOf(':')), line.slice(line.indexOf(':') + 1).trim()]),
      ),
    );
  });

async function inFolder<T>(pdf: Uint8Array, work: (file: string, folder: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'isle-pdf-'));
  try {
    const file = join(folder, 'file.pdf');
    writeFileSync(file, pdf);
    return await work(file, folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Ghostscript writes what is not ASCII in a plate's name as addresses do. */
const said = (name: string): string => (/%[0-9A-F]{2}/.test(name) ? decodeURIComponent(name) : name);

/** The plates of the first page, of process colours by the profile of a press in a file, as Ghostscript parts it, by their inks: 255 is bare paper. */
export const platesOf = (pdf: Uint8Array, ppi: number, press?: string): Promise<Record<string, Drawn>> =>
  inFolder(pdf, async (file, folder) => {
    const by = press
      ? [`--permit-file-read=${press}`, `-sOutputICCProfile=${press}`, '-dRenderIntent=1']
      : [];
    const words = ['-q', '-dNOPAUSE', '-dBATCH', '-dSAFER', '-sDEVICE=tiffsep', `-r${ppi}`, ...by];
    const { status, stderr } = spawnSync('gs', [...words, `-sOutputFile=${join(folder, 'page.tif')}`, file], {
      ...{ encoding: 'utf8', timeout: 60_000 },
    });
    if (status !== 0) throw new Error(`Ghostscript did not part it: ${stderr}`);
    const plates: Record<string, Drawn> = {};
    for (const name of readdirSync(folder)) {
      const ink = /\((.+)\)\.tif$/.exec(name)?.[1];
      if (ink === undefined) continue;
      const grey = sharp(readFileSync(join(folder, name)))
        .toColourspace('srgb')
        .ensureAlpha()
        .raw();
      const { data, info } = await grey.toBuffer({ resolveWithObject: true });
      plates[said(ink)] = { width: info.width, height: info.height, data: new Uint8Array(data) };
    }
    return plates;
  });

/** What Poppler reads of the words of a PDF, and what it says of its fonts: their names, and whether they are embedded parts. */
export const wordsOf = (pdf: Uint8Array): Promise<{ text: string; fonts: string[] }> =>
  inFolder(pdf, (file) => {
    const { stdout: text } = spawnSync('pdftotext', ['-raw', file, '-'], { encoding: 'utf8' });
    const { stdout: fonts } = spawnSync('pdffonts', [file], { encoding: 'utf8' });
    const rows = fonts.trim().split('\n').slice(2);
    return Promise.resolve({ text, fonts: rows.map((row) => row.trim().replace(/\s+/g, ' ')) });
  });

/** The names of the layers of a PDF, in the order in which qpdf lists its objects. */
export const layersOf = (pdf: Uint8Array): Promise<string[]> =>
  inFolder(pdf, (file) => {
    const { stdout } = spawnSync('qpdf', ['--json=1', '--json-key=objects', file], {
      ...{ encoding: 'utf8', maxBuffer: 50_000_000 },
    });
    const { objects } = JSON.parse(stdout) as { objects: Record<string, Record<string, unknown>> };
    return Promise.resolve(
      Object.values(objects).flatMap((one) => (one['/Type'] === '/OCG' ? [String(one['/Name'])] : [])),
    );
  });
