import { peopleSchemas } from '../people-schemas';
import { spec, type RouteSpec } from './spec';

/** People: how the studio is opened, who is in it, how they sign in, and what links they get. */
export const PEOPLE_ROUTES = {
  openStudio: spec(
    'POST',
    '/studio/opened',
    'owner',
    'Open the studio: make oneself its first owner; from then on everyone signs in',
    {
      body: peopleSchemas.openStudio,
      maxBytes: 20_000,
    },
  ),
  changeStudio: spec(
    'PATCH',
    '/studio',
    'owner',
    'Rename the studio, or say whether published patterns may be read without signing in',
    {
      body: peopleSchemas.changeStudio,
    },
  ),
  signIn: spec('POST', '/sessions', 'anyone', 'Sign in by address and password; the answer sets a cookie', {
    perMinute: 120,
    body: peopleSchemas.signIn,
    maxBytes: 20_000,
  }),
  passkeyChallenge: spec(
    'POST',
    '/sessions/passkey/challenge',
    'anyone',
    'What a passkey has to sign so that one is signed in',
  ),
  signInByPasskey: spec(
    'POST',
    '/sessions/passkey',
    'anyone',
    'Sign in by a passkey; the answer sets a cookie',
    { perMinute: 120, body: peopleSchemas.passkeyAnswer, maxBytes: 60_000 },
  ),
  listSessions: spec('GET', '/sessions', 'viewer', 'Where one is signed in'),
  signOut: spec('DELETE', '/sessions/own', 'viewer', 'Sign out here'),
  endSession: spec('DELETE', '/sessions/{id}', 'viewer', 'End one of one’s own sessions'),
  endOtherSessions: spec('DELETE', '/sessions', 'viewer', 'Sign out everywhere else'),
  me: spec('GET', '/me', 'viewer', 'Who asks, and how the studio stands to them'),
  changeMe: spec('PATCH', '/me', 'viewer', 'Another name or colour for oneself', {
    body: peopleSchemas.changeMe,
  }),
  changePassword: spec('PUT', '/me/password', 'viewer', 'Another password; all other sessions end', {
    body: peopleSchemas.changePassword,
    maxBytes: 20_000,
  }),
  listPasskeys: spec('GET', '/me/passkeys', 'viewer', 'One’s own passkeys'),
  newPasskey: spec('POST', '/me/passkeys/challenge', 'viewer', 'What a new passkey has to sign'),
  addPasskey: spec('POST', '/me/passkeys', 'viewer', 'Keep a passkey to sign in with', {
    body: peopleSchemas.addPasskey,
    maxBytes: 60_000,
  }),
  removePasskey: spec('DELETE', '/me/passkeys/{id}', 'viewer', 'Forget a passkey'),
  listPeople: spec('GET', '/people', 'viewer', 'Who is in the studio'),
  changePerson: spec('PATCH', '/people/{id}', 'owner', 'Another role for somebody, or when they leave', {
    body: peopleSchemas.changePerson,
  }),
  renewPassword: spec(
    'POST',
    '/people/{id}/renewals',
    'owner',
    'A link by which somebody gives themselves a new password',
    { perMinute: 60 },
  ),
  listInvitations: spec('GET', '/invitations', 'owner', 'Links that were given out and not used yet'),
  invite: spec('POST', '/invitations', 'owner', 'A link by which somebody comes into the studio', {
    perMinute: 60,
    body: peopleSchemas.invite,
  }),
  withdrawInvitation: spec('DELETE', '/invitations/{id}', 'owner', 'Make a link void'),
  getInvitation: spec('GET', '/invitations/links/{token}', 'anyone', 'What a link is for'),
  acceptInvitation: spec(
    'POST',
    '/invitations/links/{token}',
    'anyone',
    'Come in by a link, or set a new password by it; the answer sets a cookie',
    { perMinute: 60, body: peopleSchemas.acceptInvitation, maxBytes: 20_000 },
  ),
  tellPresence: spec(
    'POST',
    '/presence',
    'viewer',
    'Say where one is and what one has selected; answers who else is there',
    {
      body: peopleSchemas.presence,
      maxBytes: 20_000,
    },
  ),
  listBackups: spec(
    'GET',
    '/backups',
    'owner',
    'How backups are made, the last one, and those that are kept',
  ),
  makeBackup: spec(
    'POST',
    '/backups',
    'owner',
    'Make a backup now: copied, checked, and restored for a trial',
    { perMinute: 10 },
  ),
  changeBackups: spec(
    'PUT',
    '/backups',
    'owner',
    'Where backups lie, how often they are made, how many are kept',
    {
      body: peopleSchemas.backups,
    },
  ),
  changeClearing: spec(
    'PUT',
    '/clearing',
    'owner',
    'After how many days what happened, and unused files, are cleared',
    {
      body: peopleSchemas.clearing,
    },
  ),
  projectPeople: spec(
    'GET',
    '/projects/{id}/people',
    'viewer',
    'Whether a project is closed, and who is named in it',
  ),
  setProjectPeople: spec(
    'PUT',
    '/projects/{id}/people',
    'designer',
    'Close a project to all but those named in it, or open it',
    {
      body: peopleSchemas.projectPeople,
    },
  ),
} satisfies Record<string, RouteSpec>;
