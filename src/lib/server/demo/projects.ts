import { FAIR } from './layouts-fair';
import { FERRY } from './layouts-ferry';
import { LIDO } from './layouts-lido';
import { BOTTLE_LABEL, KIOSK_BAG, KIOSK_CUP, KIOSK_PARCEL, MUG_WALL, SHOP_BOX } from './layouts-objects';
import type { DemoProject } from './layout-plan';

/** The jobs of the demo world. */
export const DEMO_PROJECTS: DemoProject[] = [
  { ...LIDO, layouts: [...LIDO.layouts, KIOSK_CUP, KIOSK_BAG, KIOSK_PARCEL, MUG_WALL] },
  { ...FERRY, layouts: [...FERRY.layouts, SHOP_BOX, BOTTLE_LABEL] },
  FAIR,
];
