import type { GivenLink } from '../../../contract/answers';
import { done, type Outcome } from '../../../contract/failure';
import { getPerson, studioState } from '../../repo/people';
import { invite, renewal } from '../../repo/invitations';
import { keyOf, newToken } from '../../repo/tokens';
import type { Call } from '../http';

/** A link by which somebody comes in. What it says is answered once, and never kept. */
export function makeInvitation({ app, db, person, body, event }: Call<'invite'>): Outcome<GivenLink> {
  const token = newToken();
  const made = invite(db, keyOf(token), body);
  if (!made.ok) return made;
  const { name, role } = body;
  app.outbox?.send({
    to: name,
    subject: `Come into ${studioState(db).name}`,
    text: `${person.name} invites you as a ${role}. Open this link once, before ${day(made.value.endsAt)}:`,
    link: addressOf(event, token),
  });
  return done({ token, endsAt: made.value.endsAt });
}

/** A link by which somebody gives themselves a new password. */
export function makeRenewal({ app, db, params, event }: Call<'renewPassword'>): Outcome<GivenLink> {
  const token = newToken();
  const id = params.id;
  const made = renewal(db, keyOf(token), id);
  if (!made.ok) return made;
  app.outbox?.send({
    to: getPerson(db, id)?.email ?? '',
    subject: 'A new password for Isle',
    text: `Open this link once, before ${day(made.value.endsAt)}, and set a new password:`,
    link: addressOf(event, token),
  });
  return done({ token, endsAt: made.value.endsAt });
}

const day = (at: number): string =>
  new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeStyle: 'short' }).format(at);

const addressOf = ({ request, url }: Call['event'], token: string): string =>
  `${request.headers.get('origin') ?? url.origin}/join/${token}`;
