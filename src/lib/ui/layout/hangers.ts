import type { Hangers, PatternSummary } from '$lib/contract/data';

export type { Hangers };

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
