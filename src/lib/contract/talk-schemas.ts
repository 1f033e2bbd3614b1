import Joi from 'joi';
import { APPROVED_KINDS, COMMENT_KINDS, TALK_LIMITS } from './talk';
import { finite, id, one, prose } from './schema-parts';

const subject = { kind: one(...COMMENT_KINDS), id: id().required() };

/** Bodies and queries of what people say about things, and of how far these are. */
export const talkSchemas = {
  commentsQuery: Joi.object(subject),
  addComment: Joi.object({
    ...subject,
    words: prose(TALK_LIMITS.words).min(1).required(),
    parentId: id().allow(null).required(),
    shapeId: id().allow(null).required(),
    x: finite().allow(null).required(),
    y: finite().allow(null).required(),
  }),
  setDone: Joi.object({ done: Joi.boolean().required() }),
  readComments: Joi.object(subject),
  approvalQuery: Joi.object({ kind: one(...APPROVED_KINDS), id: id().required() }),
  setApproval: Joi.object({
    kind: one(...APPROVED_KINDS),
    id: id().required(),
    state: one('working', 'asked', 'approved'),
  }),
  setDemand: Joi.object({ demands: Joi.boolean().required() }),
  activityQuery: Joi.object({
    before: Joi.number().integer().min(1),
    project: id(),
    library: Joi.boolean(),
  }).oxor('project', 'library'),
};
