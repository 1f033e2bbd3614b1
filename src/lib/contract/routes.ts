import { LIBRARY_ROUTES } from './routes/library';
import { PEOPLE_ROUTES } from './routes/people';
import { PROJECT_ROUTES } from './routes/projects';
import { SHOWN_ROUTES } from './routes/shown';
import { TALK_ROUTES } from './routes/talk';
import type { RouteSpec } from './routes/spec';

export type { RouteSpec };

/** All routes of the API by their names. The server's handlers, the check of who may ask, and the OpenAPI document read this table. */
export const ROUTES = {
  ...LIBRARY_ROUTES,
  ...PROJECT_ROUTES,
  ...SHOWN_ROUTES,
  ...PEOPLE_ROUTES,
  ...TALK_ROUTES,
} satisfies Record<string, RouteSpec>;

export type RouteName = keyof typeof ROUTES;
