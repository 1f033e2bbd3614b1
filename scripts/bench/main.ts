import { benchBench } from './bench';
import { benchExport } from './export';
import { benchHandover } from './handover';
import { benchLayers } from './layers';
import { benchLibrary } from './library';
import { benchMemory } from './memory';
import { benchMockups } from './mockups';
import { benchPictureView } from './picture-view';
import { benchPictures } from './pictures';
import { benchRoom } from './room';
import { benchServer } from './server';
import { benchStage } from './stage';
import { benchStudio } from './studio';

const BENCHES: Record<string, (words: readonly string[]) => Promise<void>> = {
  memory: benchMemory,
  export: benchExport,
  handover: benchHandover,
  layers: benchLayers,
  pictures: benchPictures,
  photograph: benchPictureView,
  mockups: benchMockups,
  stage: benchStage,
  bench: benchBench,
  room: benchRoom,
  library: benchLibrary,
  server: benchServer,
  studio: benchStudio,
};

/** Runs the named benchmark, or all of them; `--short` runs each once, small, to show that it runs. */
export async function main(all: string[]): Promise<void> {
  const [name, ...words] = all.filter((word) => word !== '--short');
  if (name !== undefined && !BENCHES[name])
    throw new Error(`There is no benchmark “${name}”; there are ${Object.keys(BENCHES).join(', ')}.`);
  for (const [one, bench] of Object.entries(BENCHES))
    if (name === undefined || name === one) await bench(words);
}
