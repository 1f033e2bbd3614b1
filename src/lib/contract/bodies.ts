import type Joi from 'joi';
import type { Recipe } from '../core/recipe/recipe';
import { soundRecipe } from '../core/scene/sound';
import { boundedJson } from './bounded-json';
import { failWith, type Outcome } from './failure';
import { ROUTES, type RouteName, type RouteSpec } from './routes';
import { problemOf } from './sentences';

/** From here on a body is checked in a child process: what is larger would hold the server up. */
export const LARGE_BODY = 60_000;
/** All faults of a small body are told at once; of a large one the first. */
const MOST_PROBLEMS = 20;

/** Reads and checks the body of a route. */
export function checkBody(name: RouteName, bytes: Uint8Array): Outcome<{ value: unknown }> {
  const route: RouteSpec = ROUTES[name];
  const read = boundedJson(bytes);
  if (!read.ok) return read;
  const body = checked(route.body, read.value, { convert: false, all: bytes.length < LARGE_BODY });
  if (!body.ok) return body;
  // What is drawn from a recipe is counted where it comes in.
  const { recipe } = (body.value ?? {}) as { recipe?: Recipe };
  const problems = recipe ? soundRecipe(recipe) : [];
  return problems.length > 0 ? failWith(problems) : { ok: true, value: { value: body.value } };
}

/** A value checked by a schema. Queries are converted from text, bodies are not. */
export function checked(
  schema: Joi.ObjectSchema | undefined,
  value: unknown,
  { convert, all = true }: { convert: boolean; all?: boolean },
): Outcome<unknown> {
  if (!schema) return { ok: true, value: undefined };
  const result = schema.validate(value, { abortEarly: !all, convert });
  if (!result.error) return { ok: true, value: result.value };
  return failWith(result.error.details.slice(0, MOST_PROBLEMS).map(problemOf));
}
