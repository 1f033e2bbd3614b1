/** What somebody may do in the studio, from most to least. A client has no role: what they see is behind a link. */
export const ROLES = ['owner', 'designer', 'contributor', 'viewer'] as const;
export type Role = (typeof ROLES)[number];

/** What each role is for, in a sentence that people read when they choose one. */
export const ROLE_WORDS: Record<Role, string> = {
  owner: 'everything, also people, settings and backups',
  designer: 'everything in the library and in projects',
  contributor: 'works in projects that they are named in; patterns as proposals',
  viewer: 'looks and comments',
};

/** True where `role` may do what needs `needed`. */
export const mayAs = (role: Role, needed: Role): boolean => ROLES.indexOf(role) <= ROLES.indexOf(needed);

export const PEOPLE_LIMITS = {
  /** Characters. NIST SP 800-63B (revision 4) asks for fifteen where a password is all there is; OWASP ASVS 5 for at least eight. */
  password: { least: 12, most: 200 },
  email: 254,
  /** People, invitations that wait, sessions and passkeys of one person. */
  people: 500,
  invitations: 200,
  sessions: 50,
  passkeys: 20,
  /** For how many days an invitation may be used. */
  days: { least: 1, most: 60 },
} as const;

/** Somebody of the studio, as others see them. */
export type PersonData = {
  id: string;
  name: string;
  role: Role;
  /** The colour of their frame and initials, #rrggbb. */
  colour: string;
  /** With what they sign in; only owners and they themselves see it. */
  email: string | null;
  createdAt: number;
  /** When they leave, or left. */
  endsAt: number | null;
  /** When they last did something here; `null` where they never signed in, or where one may not know. */
  seenAt: number | null;
};

export type SessionData = {
  id: string;
  device: string;
  createdAt: number;
  seenAt: number;
  endsAt: number;
  /** The one that asks. */
  own: boolean;
};

export type PasskeyData = { id: string; name: string; createdAt: number; usedAt: number | null };

export type InvitationData = {
  id: string;
  name: string;
  role: Role;
  /** Names of the projects that it is for. */
  projects: string[];
  /** Of a new password: whose. */
  personId: string | null;
  leavesAt: number | null;
  madeBy: string | null;
  createdAt: number;
  endsAt: number;
};

/** What a link that somebody was given is for. */
export type OpenInvitation = {
  studio: string;
  name: string;
  role: Role;
  /** The address of who gets a new password by it. */
  email: string | null;
  renewal: boolean;
  endsAt: number;
};

/** Where somebody is named in what others said and has not read it yet. */
export type MentionData = { id: string; by: string; words: string; at: number; what: string; href: string };

/** Who asks, and how the studio stands to them. */
export type Me = {
  studio: { name: string; opened: boolean; openPatterns: boolean };
  person: PersonData;
  /** Whether they have a password. */
  password: boolean;
  mentions: MentionData[];
};

/** The letters in the mark of a person: of their first and last name. */
export function initialsOf(name: string): string {
  const words = name.trim().split(/\s+/).filter(Boolean);
  const first = [...(words[0] ?? '?')][0] ?? '?';
  const last = words.length > 1 ? ([...(words[words.length - 1] ?? '')][0] ?? '') : '';
  return (first + last).toUpperCase();
}
