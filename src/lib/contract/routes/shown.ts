import type { ShownSheet } from '../../core/sheet/client-sheet';
import type { GivenLink, Kept, Made, Versioned } from '../answers';
import type { MockupData, MockupSummary, PhotoObject, SharedSheet, SheetData, SheetSummary } from '../data';
import type { Archiving, MockupSave, Named, NewMockup, NewSheet, SheetAnswering, SheetSave } from '../given';
import { LIMITS } from '../../core/recipe/limits';
import { schemas } from '../schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** What is shown to clients: mock-ups and client sheets. */
export const SHOWN_ROUTES = {
  listMockups: spec('GET', '/projects/{id}/mock-ups', 'viewer', 'The mock-ups of a project', {
    gives: gives<MockupSummary[]>(),
  }),
  createMockup: spec('POST', '/projects/{id}/mock-ups', 'contributor', 'A new mock-up in a project', {
    gives: gives<Made>(),
    body: takes<NewMockup>(schemas.createMockup),
    maxBytes: LIMITS.mockupBytes,
  }),
  getMockup: spec('GET', '/mock-ups/{id}', 'viewer', 'A mock-up with all that stands in it', {
    gives: gives<MockupData>(),
  }),
  saveMockup: spec(
    'PUT',
    '/mock-ups/{id}',
    'contributor',
    'Replace a mock-up’s name and all that stands in it',
    { gives: gives<Versioned>(), body: takes<MockupSave>(schemas.saveMockup), maxBytes: LIMITS.mockupBytes },
  ),
  copyMockup: spec('POST', '/mock-ups/{id}/copies', 'contributor', 'Double a mock-up under another name', {
    gives: gives<Kept>(),
    body: takes<Named>(schemas.copyMockup),
  }),
  archiveMockup: spec('PUT', '/mock-ups/{id}/archived', 'contributor', 'Archive a mock-up or restore it', {
    gives: gives<Kept>(),
    body: takes<Archiving>(schemas.archived),
  }),
  keepStill: spec(
    'POST',
    '/mock-ups/{id}/still',
    'contributor',
    'Keep the picture of a mock-up as it is seen',
    { gives: gives<{ stillAt: number }>(), takesFile: true, maxBytes: LIMITS.stillBytes },
  ),
  getStill: spec('GET', '/mock-ups/{id}/still', 'viewer', 'The picture of a mock-up as it was seen last', {
    query: takes<{ made?: number }>(schemas.stillQuery),
    answers: 'image/*',
  }),
  listPhotoObjects: spec(
    'GET',
    '/photo-objects',
    'viewer',
    'Photographs of blank things that are kept for all projects',
    { gives: gives<PhotoObject[]>() },
  ),
  keepPhotoObject: spec(
    'POST',
    '/photo-objects',
    'designer',
    'Keep a photograph with its surfaces for all projects',
    { gives: gives<Kept>(), body: takes<NewMockup>(schemas.createMockup), maxBytes: LIMITS.mockupBytes },
  ),
  removePhotoObject: spec(
    'DELETE',
    '/photo-objects/{id}',
    'designer',
    'Forget a kept photograph; mock-ups made of it stay',
    { gives: gives<Kept>() },
  ),
  stockPhotoObjects: spec(
    'POST',
    '/photo-objects/stock',
    'designer',
    'Keep the blank photographs that ship with Isle',
    { gives: gives<PhotoObject[]>() },
  ),
  listSheets: spec('GET', '/projects/{id}/client-sheets', 'viewer', 'The client sheets of a project', {
    gives: gives<SheetSummary[]>(),
  }),
  createSheet: spec(
    'POST',
    '/projects/{id}/client-sheets',
    'contributor',
    'A new client sheet in a project',
    { gives: gives<Made>(), body: takes<NewSheet>(schemas.createSheet) },
  ),
  getSheet: spec(
    'GET',
    '/client-sheets/{id}',
    'viewer',
    'A client sheet, its links, and what clients left there',
    { gives: gives<SheetData>() },
  ),
  saveSheet: spec(
    'PUT',
    '/client-sheets/{id}',
    'contributor',
    'Replace a client sheet’s name and what is on it',
    { gives: gives<Versioned>(), body: takes<SheetSave>(schemas.saveSheet) },
  ),
  archiveSheet: spec(
    'PUT',
    '/client-sheets/{id}/archived',
    'designer',
    'Archive a client sheet or restore it',
    { gives: gives<Kept>(), body: takes<Archiving>(schemas.archived) },
  ),
  keepSheetPicture: spec(
    'POST',
    '/client-sheets/{id}/pictures/{item}',
    'contributor',
    'Keep the picture of something on a sheet, for clients',
    { gives: gives<{ item: string }>(), takesFile: true, maxBytes: LIMITS.stillBytes },
  ),
  showSheet: spec(
    'PUT',
    '/client-sheets/{id}/shown',
    'contributor',
    'What clients see at the links of a sheet from now on',
    { gives: gives<{ shownAt: number }>(), body: takes<ShownSheet>(schemas.showSheet) },
  ),
  makeLink: spec(
    'POST',
    '/client-sheets/{id}/links',
    'designer',
    'A link that shows a sheet to whoever has it, for some days',
    { gives: gives<GivenLink>(), perMinute: 60, body: takes<{ to: string; days: number }>(schemas.makeLink) },
  ),
  endLink: spec('DELETE', '/client-sheets/{id}/links/{token}', 'designer', 'End a link at once', {
    gives: gives<{ token: string }>(),
  }),
  readAnswers: spec(
    'PUT',
    '/client-sheets/{id}/read',
    'contributor',
    'Note that what clients left was read',
    { gives: gives<Kept>() },
  ),
  getShared: spec('GET', '/shared/{token}', 'anyone', 'What a link shows', { gives: gives<SharedSheet>() }),
  sharedPicture: spec('GET', '/shared/{token}/pictures/{item}', 'anyone', 'A picture of what a link shows', {
    answers: 'image/*',
  }),
  answerShared: spec(
    'POST',
    '/shared/{token}/answers',
    'anyone',
    'Leave a choice or words about something at a link',
    {
      gives: gives<SharedSheet>(),
      perMinute: 60,
      body: takes<SheetAnswering>(schemas.answer),
      maxBytes: 20_000,
    },
  ),
} satisfies Record<string, RouteSpec>;
