import Joi from 'joi';
import { BACKUP_LIMITS, CLEARING_LIMITS } from './backups';
import { HERE_KINDS } from './live';
import { PEOPLE_LIMITS, ROLES } from './people';
import { between, finite, hex, id, line, name, one } from './schema-parts';

const password = () => Joi.string().min(PEOPLE_LIMITS.password.least).max(PEOPLE_LIMITS.password.most);
/** What is typed to sign in is never told to be too short. */
const typedPassword = () => Joi.string().allow('').max(1000);
const email = () =>
  Joi.string()
    .trim()
    .max(PEOPLE_LIMITS.email)
    .pattern(/^[^\s@<>]+@[^\s@<>]+$/, 'an e-mail address, such as name@studio.example');
const time = () => Joi.number().integer().min(0).max(8.64e15);
/** What a browser says of a passkey (WebAuthn); the ceremony checks it. */
const ceremony = () =>
  Joi.object({ id: Joi.string().max(2000).required(), rawId: Joi.string().max(2000).required() })
    .unknown()
    .required();
const challenge = () => Joi.string().max(200).required();

/** Bodies that are about people: how they come in, sign in and what they may do. */
export const peopleSchemas = {
  openStudio: Joi.object({
    studio: name().required(),
    name: name().required(),
    email: email().required(),
    password: password().required(),
  }),
  signIn: Joi.object({ email: Joi.string().max(1000).required(), password: typedPassword().required() }),
  passkeyAnswer: Joi.object({ challenge: challenge(), answer: ceremony() }),
  addPasskey: Joi.object({ challenge: challenge(), name: name().required(), answer: ceremony() }),
  changeMe: Joi.object({ name: name(), colour: hex() }).min(1),
  changePassword: Joi.object({
    present: typedPassword().allow(null).required(),
    password: password().required(),
  }),
  changeStudio: Joi.object({ name: name(), openPatterns: Joi.boolean() }).min(1),
  changePerson: Joi.object({ role: Joi.string().valid(...ROLES), endsAt: time().allow(null) }).min(1),
  invite: Joi.object({
    name: name().required(),
    role: one(...ROLES),
    projects: Joi.array().items(id()).max(200).unique().required(),
    days: Joi.number().integer().min(PEOPLE_LIMITS.days.least).max(PEOPLE_LIMITS.days.most).required(),
    leavesAt: time().allow(null).required(),
  }),
  acceptInvitation: Joi.object({
    name: line(80).min(1),
    email: email(),
    password: password().required(),
  }),
  backups: Joi.object({
    folder: Joi.string().min(1).max(1000).allow(null).required(),
    every: between(BACKUP_LIMITS.every).integer().required(),
    keep: between(BACKUP_LIMITS.keep).integer().required(),
  }),
  clearing: Joi.object({
    events: between(CLEARING_LIMITS.events).integer().required(),
    files: between(CLEARING_LIMITS.files).integer().required(),
  }),
  presence: Joi.object({
    where: Joi.object({
      kind: one(...HERE_KINDS),
      id: id().required(),
      selected: Joi.array().items(id()).max(200).required(),
      sees: Joi.object({
        x: finite().required(),
        y: finite().required(),
        zoom: Joi.number().greater(0).max(1e6).required(),
      })
        .allow(null)
        .required(),
    })
      .allow(null)
      .required(),
  }),
  eventsQuery: Joi.object({ after: Joi.number().integer().min(0) }),
  projectPeople: Joi.object({
    closed: Joi.boolean().required(),
    people: Joi.array().items(id()).max(PEOPLE_LIMITS.people).unique().required(),
  }),
};
