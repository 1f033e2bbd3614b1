import {
  startAuthentication,
  startRegistration,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
} from '@simplewebauthn/browser';
import { fail, type Outcome } from '$lib/contract/failure';
import { call } from '../state/api';

/** True where this browser knows passkeys at all. */
export const knowsPasskeys = (): boolean => typeof PublicKeyCredential !== 'undefined';

/** Signs in by a passkey that the browser or a key at hand holds. */
export async function signInByPasskey(): Promise<Outcome<unknown>> {
  const asked = await call('POST /sessions/passkey/challenge');
  if (!asked.ok) return asked;
  try {
    const answer = await startAuthentication({
      optionsJSON: asked.value as PublicKeyCredentialRequestOptionsJSON,
    });
    return await call('POST /sessions/passkey', { body: { challenge: asked.value.challenge, answer } });
  } catch (error) {
    return refused(error);
  }
}

/** Makes a passkey on this device and keeps it under a name. */
export async function makePasskey(name: string): Promise<Outcome<unknown>> {
  const asked = await call('POST /me/passkeys/challenge');
  if (!asked.ok) return asked;
  try {
    const answer = await startRegistration({
      optionsJSON: asked.value as PublicKeyCredentialCreationOptionsJSON,
    });
    return await call('POST /me/passkeys', { body: { challenge: asked.value.challenge, name, answer } });
  } catch (error) {
    return refused(error);
  }
}

const refused = (error: unknown): ReturnType<typeof fail> =>
  error instanceof Error && error.name === 'InvalidStateError'
    ? fail('in_use', 'This device has a passkey for Isle already.')
    : fail('cancelled', 'No passkey was given. Try again, or use your password.');
