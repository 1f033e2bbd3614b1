import type { BackupSettings, ClearingRule } from './backups';
import type { Presence } from './live';
import type { Role } from './people';
import type { ApprovalState, ApprovedKind, CommentKind } from './talk';

/** What is given with calls about people and what they say, as `given.ts` has it of all others. */

export type StudioOpening = { studio: string; name: string; email: string; password: string };
export type StudioPatch = { name?: string; openPatterns?: boolean };
export type SigningIn = { email: string; password: string };
/** What a browser says of a passkey (WebAuthn, section 5.1); the ceremony checks the rest. */
export type Ceremony = { id: string; rawId: string };
/** What a passkey has to sign, with all that a browser wants to be told (WebAuthn, sections 5.4 and 5.5). */
export type Challenge = { challenge: string };
export type PasskeyAnswer = { challenge: string; answer: Ceremony };
export type NewPasskey = PasskeyAnswer & { name: string };
export type MyPatch = { name?: string; colour?: string };
export type PasswordChange = { present: string | null; password: string };
export type PersonPatch = { role?: Role; endsAt?: number | null };
export type Inviting = {
  name: string;
  role: Role;
  projects: readonly string[];
  days: number;
  leavesAt: number | null;
};
export type Accepting = { name?: string; email?: string; password: string };
/** Where one is; `null` is nowhere that others would see. */
export type Whereabouts = {
  where: {
    kind: Presence['kind'];
    id: string;
    selected: readonly string[];
    sees: Presence['sees'];
  } | null;
};
/** Whether a project is closed to all but those named in it, and their ids. */
export type ProjectPeople = { closed: boolean; people: readonly string[] };
export type { BackupSettings, ClearingRule };

/** Of what one asks what happened: the studio, one project, or the library; before which event. */
export type ActivityAsked = { before?: number; project?: string; library?: boolean };

export type CommentSubject = { kind: CommentKind; id: string };
export type NewComment = CommentSubject & {
  words: string;
  parentId: string | null;
  shapeId: string | null;
  x: number | null;
  y: number | null;
};
export type ApprovalSubject = { kind: ApprovedKind; id: string };
export type ApprovalChange = ApprovalSubject & { state: ApprovalState['state'] };
