import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type AuthenticatorTransport,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server';
import type { RequestEvent } from '@sveltejs/kit';
import { done, fail, type Outcome } from '../../../contract/failure';
import type { Challenge, PasskeyAnswer } from '../../../contract/given-people';
import type { PersonData } from '../../../contract/people';
import type { Db } from '../../db/open';
import { findPasskey, passkeysOf, passkeyUsed, type HeldPasskey } from '../../repo/sessions';

/** A challenge is answered within this time, once. */
const ANSWER_MS = 5 * 60 * 1000;
const MOST_OPEN = 2000;

/** Passkeys by Web Authentication (W3C, level 2), through SimpleWebAuthn; the challenges that wait are kept here. */
export class Passkeys {
  private readonly open = new Map<string, { person: string | null; at: number }>();

  private ask(challenge: string, person: string | null): void {
    for (const [old, { at }] of this.open) {
      if (this.open.size < MOST_OPEN && performance.now() - at < ANSWER_MS) break;
      this.open.delete(old);
    }
    this.open.set(challenge, { person, at: performance.now() });
  }

  /** True once for a challenge that was made for this person (or for whoever signs in) a moment ago. */
  private taken(challenge: string, person: string | null): boolean {
    const held = this.open.get(challenge);
    this.open.delete(challenge);
    return held !== undefined && held.person === person && performance.now() - held.at < ANSWER_MS;
  }

  async toSignIn(event: RequestEvent): Promise<Outcome<Challenge>> {
    const site = siteOf(event);
    if (!site.ok) return site;
    const options = await generateAuthenticationOptions({
      rpID: site.value.name,
      userVerification: 'required',
    });
    this.ask(options.challenge, null);
    return done(options);
  }

  /** Whose passkey has signed the challenge. */
  async signIn(db: Db, event: RequestEvent, { challenge, answer }: PasskeyAnswer): Promise<Outcome<string>> {
    const site = siteOf(event);
    if (!site.ok) return site;
    const held = findPasskey(db, answer.id);
    if (!this.taken(challenge, null) || !held) return REFUSED;
    const verified = await verifyAuthenticationResponse({
      // What it has beside its ids is checked as it is verified.
      response: answer as AuthenticationResponseJSON,
      ...{ expectedChallenge: challenge, requireUserVerification: true },
      ...{ expectedOrigin: site.value.origin, expectedRPID: site.value.name },
      credential: {
        ...{ id: held.id, publicKey: new Uint8Array(held.publicKey), counter: held.counter },
        transports: held.transports as AuthenticatorTransport[],
      },
    }).catch(() => null);
    if (!verified?.verified) return REFUSED;
    passkeyUsed(db, held.id, verified.authenticationInfo.newCounter);
    return done(held.personId);
  }

  async toAdd(db: Db, event: RequestEvent, person: PersonData): Promise<Outcome<Challenge>> {
    const site = siteOf(event);
    if (!site.ok) return site;
    const options = await generateRegistrationOptions({
      ...{ rpName: 'Isle', rpID: site.value.name, attestationType: 'none' },
      ...{ userName: person.email ?? person.name, userDisplayName: person.name },
      userID: new TextEncoder().encode(person.id),
      authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
      excludeCredentials: passkeysOf(db, person.id).map(({ id, transports }) => ({
        ...{ id, transports: transports as AuthenticatorTransport[] },
      })),
    });
    this.ask(options.challenge, person.id);
    return done(options);
  }

  /** A new passkey of a person, once it has signed the challenge. */
  async added(
    event: RequestEvent,
    personId: string,
    { challenge, answer }: PasskeyAnswer,
  ): Promise<Outcome<HeldPasskey>> {
    const site = siteOf(event);
    if (!site.ok) return site;
    if (!this.taken(challenge, personId)) return REFUSED;
    const verified = await verifyRegistrationResponse({
      response: answer as RegistrationResponseJSON,
      ...{ expectedChallenge: challenge, requireUserVerification: true },
      ...{ expectedOrigin: site.value.origin, expectedRPID: site.value.name },
    }).catch(() => null);
    if (!verified?.verified) return REFUSED;
    const { id, publicKey, counter, transports } = verified.registrationInfo.credential;
    return done({ id, personId, publicKey: Buffer.from(publicKey), counter, transports: transports ?? [] });
  }
}

const REFUSED = fail('forbidden', 'This passkey was not accepted. Try again, or sign in with your password.');

/** The site that a passkey belongs to: the name by which a page of Isle was opened. */
function siteOf({ request, url }: RequestEvent): Outcome<{ name: string; origin: string }> {
  // A foreign origin was refused before.
  const { origin, hostname } = new URL(request.headers.get('origin') ?? url.origin);
  if (/^[\d.]+$|^\[/.test(hostname))
    return fail(
      'unsupported',
      'Passkeys belong to a name, not to a number: open Isle as “localhost” or by its own name to use them.',
    );
  return done({ name: hostname, origin });
}
