import sharp from 'sharp';
import type { Intent } from '../../../core/pdf/exchange';
import type { Db } from '../../db/open';
import { listProfiles, profileBytes } from '../../repo/press-profiles';
import { projectPress } from '../../repo/projects';

/** The press of a project as files name it; `null` where it has none. */
export function intentOf(db: Db, project: string): Intent | null {
  const { profile } = projectPress(db, project);
  const bytes = profile === null ? null : profileBytes(db, profile);
  const name = listProfiles(db).find(({ id }) => id === profile)?.name;
  return bytes && name !== undefined ? { name, profile: bytes } : null;
}

let screen: Promise<Uint8Array> | null = null;

/** The profile of sRGB: the one that libvips brings, which is in the public domain (CC0). */
export const screenProfile = (): Promise<Uint8Array> => (screen ??= madeScreenProfile());

async function madeScreenProfile(): Promise<Uint8Array> {
  const dot = sharp({ create: { width: 1, height: 1, channels: 3, background: '#ffffff' } });
  const { icc } = await sharp(await dot.withIccProfile('srgb').png().toBuffer()).metadata();
  if (!icc) throw new Error('libvips has no profile of sRGB.');
  return icc;
}
