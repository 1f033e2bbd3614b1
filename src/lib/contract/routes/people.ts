import type { GivenLink, Kept, StudioState } from '../answers';
import type { BackupSettings, BackupsData, ClearingRule, LastBackup } from '../backups';
import type {
  Accepting,
  Inviting,
  MyPatch,
  NewPasskey,
  PasskeyAnswer,
  PasswordChange,
  PersonPatch,
  ProjectPeople,
  SigningIn,
  StudioOpening,
  StudioPatch,
  Whereabouts,
  Challenge,
} from '../given-people';
import type { Presence } from '../live';
import type { InvitationData, Me, OpenInvitation, PasskeyData, PersonData, SessionData } from '../people';
import { peopleSchemas } from '../people-schemas';
import { gives, spec, takes, type RouteSpec } from './spec';

/** People: how the studio is opened, who is in it, how they sign in, and what links they get. */
export const PEOPLE_ROUTES = {
  openStudio: spec(
    'POST',
    '/studio/opened',
    'owner',
    'Open the studio: make oneself its first owner; from then on everyone signs in',
    { gives: gives<Kept>(), body: takes<StudioOpening>(peopleSchemas.openStudio), maxBytes: 20_000 },
  ),
  changeStudio: spec(
    'PATCH',
    '/studio',
    'owner',
    'Rename the studio, or say whether published patterns may be read without signing in',
    { gives: gives<StudioState>(), body: takes<StudioPatch>(peopleSchemas.changeStudio) },
  ),
  signIn: spec('POST', '/sessions', 'anyone', 'Sign in by address and password; the answer sets a cookie', {
    gives: gives<Kept>(),
    perMinute: 120,
    body: takes<SigningIn>(peopleSchemas.signIn),
    maxBytes: 20_000,
  }),
  passkeyChallenge: spec(
    'POST',
    '/sessions/passkey/challenge',
    'anyone',
    'What a passkey has to sign so that one is signed in',
    { gives: gives<Challenge>() },
  ),
  signInByPasskey: spec(
    'POST',
    '/sessions/passkey',
    'anyone',
    'Sign in by a passkey; the answer sets a cookie',
    {
      gives: gives<Kept>(),
      perMinute: 120,
      body: takes<PasskeyAnswer>(peopleSchemas.passkeyAnswer),
      maxBytes: 60_000,
    },
  ),
  listSessions: spec('GET', '/sessions', 'viewer', 'Where one is signed in', {
    gives: gives<SessionData[]>(),
  }),
  signOut: spec('DELETE', '/sessions/own', 'viewer', 'Sign out here', { gives: gives<Kept>() }),
  endSession: spec('DELETE', '/sessions/{id}', 'viewer', 'End one of one’s own sessions', {
    gives: gives<Kept>(),
  }),
  endOtherSessions: spec('DELETE', '/sessions', 'viewer', 'Sign out everywhere else', {
    gives: gives<{ ended: number }>(),
  }),
  me: spec('GET', '/me', 'viewer', 'Who asks, and how the studio stands to them', { gives: gives<Me>() }),
  changeMe: spec('PATCH', '/me', 'viewer', 'Another name or colour for oneself', {
    gives: gives<PersonData>(),
    body: takes<MyPatch>(peopleSchemas.changeMe),
  }),
  changePassword: spec('PUT', '/me/password', 'viewer', 'Another password; all other sessions end', {
    gives: gives<Kept>(),
    body: takes<PasswordChange>(peopleSchemas.changePassword),
    maxBytes: 20_000,
  }),
  listPasskeys: spec('GET', '/me/passkeys', 'viewer', 'One’s own passkeys', {
    gives: gives<PasskeyData[]>(),
  }),
  newPasskey: spec('POST', '/me/passkeys/challenge', 'viewer', 'What a new passkey has to sign', {
    gives: gives<Challenge>(),
  }),
  addPasskey: spec('POST', '/me/passkeys', 'viewer', 'Keep a passkey to sign in with', {
    gives: gives<Kept>(),
    body: takes<NewPasskey>(peopleSchemas.addPasskey),
    maxBytes: 60_000,
  }),
  removePasskey: spec('DELETE', '/me/passkeys/{id}', 'viewer', 'Forget a passkey', { gives: gives<Kept>() }),
  listPeople: spec('GET', '/people', 'viewer', 'Who is in the studio', { gives: gives<PersonData[]>() }),
  changePerson: spec('PATCH', '/people/{id}', 'owner', 'Another role for somebody, or when they leave', {
    gives: gives<PersonData>(),
    body: takes<PersonPatch>(peopleSchemas.changePerson),
  }),
  renewPassword: spec(
    'POST',
    '/people/{id}/renewals',
    'owner',
    'A link by which somebody gives themselves a new password',
    { gives: gives<GivenLink>(), perMinute: 60 },
  ),
  listInvitations: spec('GET', '/invitations', 'owner', 'Links that were given out and not used yet', {
    gives: gives<InvitationData[]>(),
  }),
  invite: spec('POST', '/invitations', 'owner', 'A link by which somebody comes into the studio', {
    gives: gives<GivenLink>(),
    perMinute: 60,
    body: takes<Inviting>(peopleSchemas.invite),
  }),
  withdrawInvitation: spec('DELETE', '/invitations/{id}', 'owner', 'Make a link void', {
    gives: gives<Kept>(),
  }),
  getInvitation: spec('GET', '/invitations/links/{token}', 'anyone', 'What a link is for', {
    gives: gives<OpenInvitation>(),
  }),
  acceptInvitation: spec(
    'POST',
    '/invitations/links/{token}',
    'anyone',
    'Come in by a link, or set a new password by it; the answer sets a cookie',
    {
      gives: gives<Kept>(),
      perMinute: 60,
      body: takes<Accepting>(peopleSchemas.acceptInvitation),
      maxBytes: 20_000,
    },
  ),
  tellPresence: spec(
    'POST',
    '/presence',
    'viewer',
    'Say where one is and what one has selected; answers who else is there',
    { gives: gives<Presence[]>(), body: takes<Whereabouts>(peopleSchemas.presence), maxBytes: 20_000 },
  ),
  listBackups: spec(
    'GET',
    '/backups',
    'owner',
    'How backups are made, the last one, and those that are kept',
    { gives: gives<BackupsData>() },
  ),
  makeBackup: spec(
    'POST',
    '/backups',
    'owner',
    'Make a backup now: copied, checked, and restored for a trial',
    { gives: gives<LastBackup>(), perMinute: 10 },
  ),
  changeBackups: spec(
    'PUT',
    '/backups',
    'owner',
    'Where backups lie, how often they are made, how many are kept',
    { gives: gives<BackupsData>(), body: takes<BackupSettings>(peopleSchemas.backups) },
  ),
  changeClearing: spec(
    'PUT',
    '/clearing',
    'owner',
    'After how many days what happened, and unused files, are cleared',
    { gives: gives<ClearingRule>(), body: takes<ClearingRule>(peopleSchemas.clearing) },
  ),
  projectPeople: spec(
    'GET',
    '/projects/{id}/people',
    'viewer',
    'Whether a project is closed, and who is named in it',
    { gives: gives<ProjectPeople>() },
  ),
  setProjectPeople: spec(
    'PUT',
    '/projects/{id}/people',
    'designer',
    'Close a project to all but those named in it, or open it',
    { gives: gives<ProjectPeople>(), body: takes<ProjectPeople>(peopleSchemas.projectPeople) },
  ),
} satisfies Record<string, RouteSpec>;
