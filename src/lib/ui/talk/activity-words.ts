import type { ActivityItem } from '$lib/contract/talk';

const WORDS: Readonly<Record<string, string>> = {
  'pattern.archived': 'archived the pattern',
  'pattern.restored': 'brought back the pattern',
  'pattern.deleted': 'deleted the pattern',
  'bulk.replaced': 'replaced a pattern:',
  'bulk.recoloured': 'exchanged palettes:',
  'bulk.undone': 'took back a change of many fills',
  'project.created': 'began the project',
  'project.archived': 'archived the project',
  'project.restored': 'brought back the project',
  'project.people': 'changed who is in the project',
  'layout.created': 'made the layout',
  'layout.archived': 'archived the layout',
  'layout.restored': 'brought back the layout',
  'layout.state_named': 'named a state of',
  'comment.added': 'said something about',
  'comment.done': 'dealt with a comment on',
  'person.came': 'came into the studio:',
  'person.changed': 'changed the role of',
  'sheet.linked': 'made a link to the client sheet',
  'studio.opened': 'opened the studio',
  'backup.made': 'made a backup',
};

/** What somebody did, as words before the name of what it was done to. */
export function activityWords({ kind, data }: Pick<ActivityItem, 'kind' | 'data'>): string {
  const { revision, from, at, kind: of } = data as Record<string, number | string | undefined>;
  const which = of === 'pattern' ? `revision ${at} of` : `version ${at} of`;
  if (kind === 'pattern.published') return `published revision ${revision} of`;
  if (kind === 'pattern.restored_revision') return `published revision ${from} again, as ${revision}, of`;
  if (kind === 'approval.asked') return `asks for approval of ${which}`;
  if (kind === 'approval.approved') return `approved ${which}`;
  if (kind === 'approval.working') return 'works again on';
  return WORDS[kind] ?? kind;
}
