import { FAIR } from './layouts-fair';
import { FERRY } from './layouts-ferry';
import { LIDO } from './layouts-lido';
import { KIOSK_CUP, SHOP_BOX } from './layouts-objects';
import type { DemoProject } from './layout-plan';

/** The jobs of the demo world. */
export const DEMO_PROJECTS: DemoProject[] = [
  { ...LIDO, layouts: [...LIDO.layouts, KIOSK_CUP] },
  { ...FERRY, layouts: [...FERRY.layouts, SHOP_BOX] },
  FAIR,
];
