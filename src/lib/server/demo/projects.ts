import { FAIR } from './layouts-fair';
import { FERRY } from './layouts-ferry';
import { LIDO } from './layouts-lido';
import type { DemoProject } from './layout-plan';

/** The jobs of the demo world. */
export const DEMO_PROJECTS: DemoProject[] = [LIDO, FERRY, FAIR];
