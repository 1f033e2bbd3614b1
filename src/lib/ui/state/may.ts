import { page } from '$app/state';
import { mayAs, type Me, type Role } from '$lib/contract/people';

/** Whether whoever looks has at least this role; whether they may in a project is told by the server. */
export const may = (needed: Role): boolean =>
  mayAs((page.data.me as Me | null)?.person.role ?? 'viewer', needed);
