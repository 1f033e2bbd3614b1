import { inject } from 'vitest';
import type { LayoutData, PatternForUse } from '../../src/lib/contract/data';
import { asDocumented } from './as-documented';
import type { Recipe } from '../../src/lib/core/recipe/recipe';
import type { Shape } from '../../src/lib/core/recipe/layout';

export type Answer = { status: number; body: unknown };

/** Calls the API under test. */
export async function api(
  method: string,
  path: string,
  body?: unknown,
  address = inject('address'),
): Promise<Answer> {
  const response = await fetch(`${address}/api/v1${path}`, {
    method,
    ...(body === undefined
      ? {}
      : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
  const answer: unknown = await response.json();
  if (response.ok) asDocumented(method, path, answer);
  return { status: response.status, body: answer };
}

/** Calls the API and takes the answer as `T`; throws the sentence of a failure. */
export async function must<T>(method: string, path: string, body?: unknown): Promise<T> {
  const answer = await api(method, path, body);
  if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
  return answer.body as T;
}

/** A shape under ids that no other layout has. */
function withOwnIds(shape: Shape): Shape {
  const id = `t${Date.now().toString(36)}${count++}`;
  return { ...shape, id, fills: shape.fills.map((fill, at) => ({ ...fill, id: `${id}f${at}` })) };
}

let count = 0;
export const unique = (stem: string): string => `${stem} ${Date.now().toString(36)}${count++}`;

/** Makes and publishes a pattern. */
export async function publishedPattern(recipe: Recipe, name = unique('Pattern')): Promise<string> {
  const made = await must<{ id: string; version: number }>('POST', '/patterns', { name, recipe });
  await must('POST', `/patterns/${made.id}/revisions`, { base: made.version });
  return made.id;
}

/** Makes a project with one layout of the given shapes; answers its address in the application. */
export async function layoutWith(
  shapes: Shape[],
  page: { width: number; height: number; background?: string | null },
): Promise<{ id: string; path: string }> {
  const project = await must<{ id: string }>('POST', '/projects', { name: unique('Project') });
  const layout = await must<{ id: string; version: number }>('POST', `/projects/${project.id}/layouts`, {
    name: unique('Layout'),
    measure: 'px',
    ...page,
  });
  if (shapes.length > 0)
    await must('POST', `/layouts/${layout.id}/changes`, {
      base: layout.version,
      changes: shapes.map((shape) => ({ do: 'put-shape', shape: withOwnIds(shape) })),
    });
  return { id: layout.id, path: `/projects/${project.id}/layouts/${layout.id}` };
}

export const getLayout = (id: string): Promise<{ layout: LayoutData; patterns: PatternForUse[] }> =>
  must('GET', `/layouts/${id}`);

/** Exports a layout as PNG and answers its bytes. */
export const exportPng = (id: string, ppi: number): Promise<Buffer> => exported(id, { ppi });

/** Has a layout drawn as it is asked for and answers the file's bytes. */
export async function exported(id: string, wish: { ppi: number; as?: 'plates' }): Promise<Buffer> {
  const job = await must<{ id: string }>('POST', `/layouts/${id}/exports`, wish);
  for (;;) {
    const { state, message } = await must<{ state: string; message: string }>('GET', `/exports/${job.id}`);
    if (state === 'done') break;
    if (state === 'failed' || state === 'cancelled') throw new Error(message);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  const file = await fetch(`${inject('address')}/api/v1/exports/${job.id}/file`);
  return Buffer.from(await file.arrayBuffer());
}
