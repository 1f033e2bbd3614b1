import { benchBench } from './bench';
import { benchExport } from './export';
import { benchLayers } from './layers';
import { benchLibrary } from './library';
import { benchMemory } from './memory';
import { benchStage } from './stage';

const BENCHES: Record<string, () => Promise<void>> = {
  memory: benchMemory,
  export: benchExport,
  layers: benchLayers,
  stage: benchStage,
  bench: benchBench,
  library: benchLibrary,
};

/** Runs the named benchmarks, or all of them. */
export async function main(names: string[]): Promise<void> {
  for (const [name, bench] of Object.entries(BENCHES)) {
    if (names.length === 0 || names.includes(name)) await bench();
  }
}
