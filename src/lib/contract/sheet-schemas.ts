import Joi from 'joi';
import { CHOICES, PAPER_NAMES, SHEET_KINDS, SHEET_LIMITS, SHEET_WIDTHS } from '../core/sheet/client-sheet';
import { between, hex, id, line, name, one, prose, version } from './schema-parts';

const item = {
  id: id().required(),
  kind: one(...SHEET_KINDS),
  width: one(...SHEET_WIDTHS),
  caption: prose(SHEET_LIMITS.caption).required(),
};

const clientSheet = Joi.object({
  line: line(SHEET_LIMITS.line).allow('').required(),
  words: prose(SHEET_LIMITS.words).required(),
  paper: one(...PAPER_NAMES),
  across: Joi.boolean().required(),
  items: Joi.array()
    .items(Joi.object({ ...item, of: id().allow('').required() }))
    .max(SHEET_LIMITS.items)
    .unique('id')
    .required(),
})
  .required()
  .meta({ className: 'ClientSheet' });

/** The bodies of client sheets, their links and what clients leave there. */
export const sheetSchemas = {
  createSheet: Joi.object({ name: name().required(), body: clientSheet }),
  saveSheet: Joi.object({ base: version().required(), name: name().required(), body: clientSheet }),
  showSheet: Joi.object({
    line: line(SHEET_LIMITS.line).allow('').required(),
    words: prose(SHEET_LIMITS.words).required(),
    items: Joi.array()
      .items(
        Joi.object({
          ...item,
          title: line(200).allow('').required(),
          facts: line(200).allow('').required(),
          colours: Joi.array()
            .items(Joi.object({ name: name().required(), hex: hex().required() }))
            .max(200)
            .required(),
        }),
      )
      .max(SHEET_LIMITS.items)
      .unique('id')
      .required(),
  }),
  makeLink: Joi.object({
    to: line(SHEET_LIMITS.who).allow('').required(),
    days: between(SHEET_LIMITS.days).integer().required(),
  }),
  answer: Joi.object({
    item: id().required(),
    who: line(SHEET_LIMITS.who).allow('').required(),
    choice: Joi.string()
      .valid(...CHOICES)
      .allow(null),
    words: prose(SHEET_LIMITS.answer).min(1),
  })
    .or('choice', 'words')
    .required(),
};
