import { talkSchemas } from '../talk-schemas';
import { spec, type RouteSpec } from './spec';

/** What people say about things, how far these are, and what happened. */
export const TALK_ROUTES = {
  listComments: spec('GET', '/comments', 'viewer', 'What is said about a layout, a pattern or a strike-off', {
    query: talkSchemas.commentsQuery,
  }),
  addComment: spec(
    'POST',
    '/comments',
    'viewer',
    'Say something: at a place, about a shape, or as an answer',
    { perMinute: 120, body: talkSchemas.addComment, maxBytes: 60_000 },
  ),
  setDone: spec('PATCH', '/comments/{id}', 'viewer', 'Say that a comment is dealt with, or not after all', {
    body: talkSchemas.setDone,
  }),
  readComments: spec(
    'PUT',
    '/comments/read',
    'viewer',
    'Note that one has read what is said about something',
    {
      body: talkSchemas.readComments,
    },
  ),
  getApproval: spec('GET', '/approvals', 'viewer', 'How far a layout or pattern is', {
    query: talkSchemas.approvalQuery,
  }),
  setApproval: spec(
    'PUT',
    '/approvals',
    'contributor',
    'Ask for approval, approve (designers), or take it back to work',
    {
      body: talkSchemas.setApproval,
    },
  ),
  setDemand: spec(
    'PUT',
    '/projects/{id}/approval',
    'designer',
    'Say whether a project hands over only what is approved',
    {
      body: talkSchemas.setDemand,
    },
  ),
  listActivity: spec('GET', '/activity', 'viewer', 'What happened in the studio, the latest first', {
    query: talkSchemas.activityQuery,
  }),
} satisfies Record<string, RouteSpec>;
