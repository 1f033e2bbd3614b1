import type { ActivityItem } from '$lib/contract/talk';

const WORDS: Readonly<Record<string, string>> = {
  'pattern.taken_in': 'took patterns in from a file',
  'pattern.archived': 'archived the pattern',
  'pattern.restored': 'brought back the pattern',
  'pattern.deleted': 'deleted the pattern',
  'bulk.replaced': 'replaced a pattern:',
  'bulk.recoloured': 'exchanged palettes:',
  'bulk.undone': 'took back a change of many fills',
  'palette.created': 'made the palette',
  'palette.archived': 'archived the palette',
  'palette.restored': 'brought back the palette',
  'mockup.created': 'made the mock-up',
  'mockup.archived': 'archived the mock-up',
  'mockup.restored': 'brought back the mock-up',
  'sheet.created': 'made the client sheet',
  'sheet.archived': 'archived the client sheet',
  'sheet.restored': 'brought back the client sheet',
  'project.created': 'began the project',
  'project.archived': 'archived the project',
  'project.restored': 'brought back the project',
  'project.people': 'changed who is in the project',
  'layout.created': 'made the layout',
  'layout.archived': 'archived the layout',
  'layout.restored': 'brought back the layout',
  'comment.added': 'said something about',
  'comment.done': 'dealt with a comment on',
  'person.came': 'came into the studio:',
  'sheet.linked': 'made a link to the client sheet',
  'studio.opened': 'opened the studio',
  'backup.made': 'made a backup',
};

/** What somebody did, as words before the name of what it was done to. */
export function activityWords({ kind, data }: Pick<ActivityItem, 'kind' | 'data'>): string {
  const { revision, from, at, kind: of } = data as Record<string, number | string | undefined>;
  const was = data.was as { role?: string } | undefined;
  const which = of === 'pattern' ? `revision ${at} of` : `version ${at} of`;
  if (kind === 'pattern.published') return `published revision ${revision} of`;
  if (kind === 'pattern.restored_revision') return `published revision ${from} again, as ${revision}, of`;
  if (kind === 'pattern.renamed') return `renamed “${from}” to`;
  if (kind === 'layout.state_named')
    return data.name === null ? 'took away the name of a state of' : `named a state “${data.name}” of`;
  if (kind === 'person.changed')
    return was?.role && was.role !== data.role
      ? `changed the role from ${was.role} to ${data.role}, of`
      : 'changed what is known of';
  if (kind === 'approval.asked') return `asks for approval of ${which}`;
  if (kind === 'approval.approved') return `approved ${which}`;
  if (kind === 'approval.working') return 'works again on';
  return WORDS[kind] ?? kind;
}
