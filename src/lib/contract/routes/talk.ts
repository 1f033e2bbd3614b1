import type { Kept } from '../answers';
import type {
  ActivityAsked,
  ApprovalChange,
  ApprovalSubject,
  CommentSubject,
  NewComment,
} from '../given-people';
import type { ActivityItem, ApprovalState, CommentData } from '../talk';
import { talkSchemas } from '../talk-schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** What people say about things, how far these are, and what happened. */
export const TALK_ROUTES = {
  listComments: spec('GET', '/comments', 'viewer', 'What is said about a layout, a pattern or a strike-off', {
    gives: gives<CommentData[]>(),
    query: takes<CommentSubject>(talkSchemas.commentsQuery),
  }),
  addComment: spec(
    'POST',
    '/comments',
    'viewer',
    'Say something: at a place, about a shape, or as an answer',
    {
      gives: gives<Kept>(),
      perMinute: 120,
      body: takes<NewComment>(talkSchemas.addComment),
      maxBytes: 60_000,
    },
  ),
  setDone: spec('PATCH', '/comments/{id}', 'viewer', 'Say that a comment is dealt with, or not after all', {
    gives: gives<Kept>(),
    body: takes<{ done: boolean }>(talkSchemas.setDone),
  }),
  readComments: spec(
    'PUT',
    '/comments/read',
    'viewer',
    'Note that one has read what is said about something',
    { gives: gives<{ at: number }>(), body: takes<CommentSubject>(talkSchemas.readComments) },
  ),
  getApproval: spec('GET', '/approvals', 'viewer', 'How far a layout or pattern is', {
    gives: gives<ApprovalState>(),
    query: takes<ApprovalSubject>(talkSchemas.approvalQuery),
  }),
  setApproval: spec(
    'PUT',
    '/approvals',
    'contributor',
    'Ask for approval, approve (designers), or take it back to work',
    { gives: gives<ApprovalState>(), body: takes<ApprovalChange>(talkSchemas.setApproval) },
  ),
  setDemand: spec(
    'PUT',
    '/projects/{id}/approval',
    'designer',
    'Say whether a project hands over only what is approved',
    { gives: gives<{ demands: boolean }>(), body: takes<{ demands: boolean }>(talkSchemas.setDemand) },
  ),
  listActivity: spec(
    'GET',
    '/activity',
    'viewer',
    'What happened in the studio, in a project or in the library, the latest first',
    { gives: gives<ActivityItem[]>(), query: takes<ActivityAsked>(talkSchemas.activityQuery) },
  ),
  takeBack: spec(
    'POST',
    '/activity/{id}/undone',
    'designer',
    'Take back what happened, as far as it still is so',
    {
      gives: gives<{ left: number }>(),
    },
  ),
} satisfies Record<string, RouteSpec>;
