import type { LibraryFacets, PatternSummary } from '$lib/contract/data';

/** The patterns that hang beside the stage, and what they can be narrowed by. */
export type Hangers = {
  all: PatternSummary[];
  /** The ids of those that the project uses, and of those that any layout used last, the latest first. */
  inProject: string[];
  recent: string[];
  facets: LibraryFacets;
};

export type HangerGroup = { name: string | null; patterns: readonly PatternSummary[] };

/** The hangers without a search: what the project uses first, then what was used last, then all others by name. */
export function hangerGroups({ all, inProject, recent }: Hangers): HangerGroup[] {
  const left = new Map(all.map((pattern) => [pattern.id, pattern]));
  const take = (ids: readonly string[]): PatternSummary[] =>
    ids.flatMap((id) => {
      const pattern = left.get(id);
      left.delete(id);
      return pattern ?? [];
    });
  const groups = [
    { name: 'In this project', patterns: take(inProject) },
    { name: 'Used lately', patterns: take(recent) },
  ].filter(({ patterns }) => patterns.length > 0);
  const rest = [...left.values()];
  if (rest.length > 0) groups.push({ name: groups.length > 0 ? 'All others' : '', patterns: rest });
  return groups;
}
