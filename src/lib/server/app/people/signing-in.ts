import { done, fail, type Outcome } from '../../../contract/failure';
import type { PersonData } from '../../../contract/people';
import { accept, openInvitation } from '../../repo/invitations';
import { byEmail, emailKey, getPerson, openStudio, studioState } from '../../repo/people';
import { passwordOf, setPassword } from '../../repo/sessions';
import { addressOf, type Call } from '../http';
import { signInAs } from './asking';
import { sessionKey } from './cookie';
import { hashed, isRight, passwordFault } from './passwords';
import { keyOf } from '../../repo/tokens';

type Answer = Promise<Outcome<{ id: string }>>;

/** One sentence for all of it, so that nobody learns which addresses are known. */
const WRONG = fail(
  'forbidden',
  'Address or password is not right. Try again, or ask an owner for a link to set a new password.',
);

const slower = (seconds: number): ReturnType<typeof fail> =>
  fail('too_many', `That was wrong several times. Try again in ${Math.ceil(seconds)} seconds.`, '', {
    wait: seconds,
  });

export async function signIn(call: Call<'signIn'>): Answer {
  const { app, db, event, body } = call;
  const { email, password } = body;
  const address = addressOf(call.event);
  // One address is counted for each person and for all together: who tries many people is slowed down too.
  const name = `${address} ${emailKey(email).slice(0, 300)}`;
  const wait = Math.max(app.patience.wait(name), app.addresses.wait(address));
  if (wait > 0) return slower(wait);
  const found = byEmail(db, email);
  const right = await isRight(password, found?.password ?? null);
  if (!right || !found) {
    app.patience.wrong(name);
    app.addresses.wrong(address);
    return WRONG;
  }
  app.patience.right(name);
  signInAs(db, event, found.id);
  return done({ id: found.id });
}

export async function signInByPasskey(call: Call<'signInByPasskey'>): Answer {
  const { app, db, event, body } = call;
  const address = `passkey ${addressOf(call.event)}`;
  const wait = app.patience.wait(address);
  if (wait > 0) return slower(wait);
  const whose = await app.passkeys.signIn(db, event, body);
  if (!whose.ok) {
    app.patience.wrong(address);
    return whose;
  }
  app.patience.right(address);
  signInAs(db, event, whose.value);
  return done({ id: whose.value });
}

export async function open({ db, event, body }: Call<'openStudio'>): Answer {
  const { password, ...named } = body;
  const fault = passwordFault(password, ['isle', named.studio, named.name, named.email]);
  if (fault) return { ok: false, failure: fault };
  const opened = openStudio(db, { ...named, password: await hashed(password) });
  if (opened.ok) signInAs(db, event, opened.value.id);
  return opened;
}

/** Another password for oneself; whoever else is signed in as them is signed out. */
export async function changePassword(call: Call<'changePassword'>): Answer {
  const { app, db, event, person, body } = call;
  const { present, password } = body;
  if (!studioState(db).opened) return fail('invalid', 'Open the studio first: until then nobody signs in.');
  const name = `own ${person.id}`;
  const wait = app.patience.wait(name);
  if (wait > 0) return slower(wait);
  const held = passwordOf(db, person.id);
  if (held !== null && !(await isRight(present ?? '', held))) {
    app.patience.wrong(name);
    return fail('forbidden', 'The present password is not right; nothing was changed.', 'present');
  }
  const fault = passwordFault(password, aboutOf(studioState(db).name, person));
  if (fault) return { ok: false, failure: fault };
  setPassword(db, person.id, await hashed(password), sessionKey(event));
  return done({ id: person.id });
}

const aboutOf = (studio: string, { name, email }: Pick<PersonData, 'name' | 'email'>): string[] => [
  ...['isle', studio, name],
  ...(email === null ? [] : [email]),
];

/** Comes in by a link, or sets a new password by it; whoever does is signed in. */
export async function comeIn(call: Call<'acceptInvitation'>): Answer {
  const { app, db, event, params, body: given } = call;
  const address = `link ${addressOf(call.event)}`;
  const wait = app.patience.wait(address);
  if (wait > 0) return slower(wait);
  const key = keyOf(params.token);
  const link = openInvitation(db, key);
  if (!link.ok) {
    app.patience.wrong(address);
    return link;
  }
  const name = given.name ?? link.value.name;
  const email = link.value.email ?? given.email ?? null;
  const fault = passwordFault(given.password, aboutOf(link.value.studio, { name, email }));
  if (fault) return { ok: false, failure: fault };
  const came = accept(db, key, { ...given, password: await hashed(given.password) });
  if (came.ok && getPerson(db, came.value.id)) signInAs(db, event, came.value.id);
  return came;
}
