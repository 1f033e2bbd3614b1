/** What can be talked about, and what can be approved. */
export const COMMENT_KINDS = ['layout', 'pattern', 'strike-off'] as const;
export type CommentKind = (typeof COMMENT_KINDS)[number];
export const APPROVED_KINDS = ['layout', 'pattern'] as const;
export type ApprovedKind = (typeof APPROVED_KINDS)[number];

export const TALK_LIMITS = {
  /** Characters of one comment, and comments about one thing. */
  words: 4000,
  comments: 2000,
} as const;

export type CommentData = {
  id: string;
  parentId: string | null;
  shapeId: string | null;
  /** Where on the page, px. */
  x: number | null;
  y: number | null;
  by: { id: string; name: string; colour: string };
  words: string;
  mentions: string[];
  createdAt: number;
  doneAt: number | null;
  doneBy: string | null;
  /** Whoever asks has not read it yet. */
  unread: boolean;
};

/** How far something is. What was changed since it was approved is worked on again. */
export type ApprovalState = {
  state: 'working' | 'asked' | 'approved';
  by: string | null;
  /** The version or revision that it was said of, and the present one. */
  at: number;
  now: number;
  when: number | null;
};

/** What people want to hear of; other events only tell open views. */
export const ACTIVITY_KINDS = [
  ...['pattern.published', 'pattern.renamed', 'pattern.archived', 'pattern.restored', 'pattern.deleted'],
  ...['pattern.restored_revision', 'pattern.taken_in', 'bulk.replaced', 'bulk.recoloured', 'bulk.undone'],
  ...['palette.created', 'palette.archived', 'palette.restored'],
  ...['project.created', 'project.archived', 'project.restored', 'project.people'],
  ...['layout.created', 'layout.archived', 'layout.restored', 'layout.state_named'],
  ...['mockup.created', 'mockup.archived', 'mockup.restored', 'sheet.created', 'sheet.archived'],
  ...['sheet.restored', 'sheet.linked', 'approval.asked', 'approval.approved', 'approval.working'],
  ...['comment.added', 'comment.done', 'person.came', 'person.changed', 'studio.opened', 'backup.made'],
] as const;

/** Something that happened, as the list of activity shows it. */
export type ActivityItem = {
  id: number;
  kind: string;
  by: { name: string; colour: string } | null;
  at: number;
  /** What it is about: its name and where it is, as far as it is there. */
  what: string;
  href: string | null;
  data: Record<string, unknown>;
  /** Whoever asks may take it back, and there still is something to take back. */
  undo: boolean;
};
