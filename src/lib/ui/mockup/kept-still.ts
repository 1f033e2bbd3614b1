import { urlOf } from '../state/api';

/** Where the picture of a mock-up is as it was seen last; `null` where it was not seen yet. */
export const keptStill = ({ id, stillAt }: { id: string; stillAt: number | null }): string | null =>
  stillAt === null ? null : urlOf('GET /mock-ups/{id}/still', { id, query: { made: stillAt } });
