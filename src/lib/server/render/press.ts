import {
  cmsFLAGS_BLACKPOINTCOMPENSATION,
  cmsInfoDescription,
  INTENT_PERCEPTUAL,
  INTENT_RELATIVE_COLORIMETRIC,
  instantiate,
  TYPE_CMYK_8,
  TYPE_RGB_8,
  type Lcms,
} from 'lcms-wasm';
import { done, fail, type Outcome } from '../../contract/failure';
import { deltaE2000Lab, toLabD65 } from '../../core/colour/difference';
import { hexOf } from '../../core/colour/parse';
import type { PressIntent, PressSettings } from '../../core/colour/press';

const INTENTS: Record<PressIntent, number> = {
  relative: INTENT_RELATIVE_COLORIMETRIC,
  perceptual: INTENT_PERCEPTUAL,
};

/** Pixels that are turned at once: what a module of WebAssembly holds beside the picture. */
const AT_ONCE = 1 << 20;

/** What a header of a profile says (ICC.1:2022, 7.2): its size, class, colour space and connection space. */
const WHERE = { size: 0, class: 12, space: 16, connection: 20, signature: 36, head: 128 };

let module: Promise<Lcms> | null = null;
const little = (): Promise<Lcms> => (module ??= instantiate());

/** The name of an ICC profile of a press; a sentence where it is none that Isle can print by. */
export async function readProfile(bytes: Uint8Array, fileName: string): Promise<Outcome<{ name: string }>> {
  const refused = headFault(bytes, fileName);
  if (refused) return fail('unsupported', refused);
  const lcms = await little();
  const profile = opened(lcms, bytes);
  if (profile === 0) return fail('unreadable', `“${fileName}” is a damaged ICC profile; fetch it once more.`);
  try {
    const name = lcms.cmsGetProfileInfoASCII(profile, cmsInfoDescription, 'en', 'US').trim();
    const press = await Press.open(bytes, { intent: 'relative', blackPoint: true });
    if (!press)
      return fail(
        'unsupported',
        `“${fileName}” says how its inks look and not how colours become inks (or the other way round); take the full profile of the press.`,
      );
    press.close();
    return done({ name: name.slice(0, 120) || fileName });
  } finally {
    lcms.cmsCloseProfile(profile);
  }
}

function headFault(bytes: Uint8Array, fileName: string): string | null {
  const word = (at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < WHERE.head || word(WHERE.signature) !== 'acsp')
    return `“${fileName}” is no ICC profile; printers give theirs as .icc or .icm files.`;
  const size = new DataView(bytes.buffer, bytes.byteOffset).getUint32(WHERE.size);
  if (size > bytes.length) return `“${fileName}” ends before its last part; fetch it once more.`;
  const [kind, space] = [word(WHERE.class), word(WHERE.space)];
  if (kind !== 'prtr') {
    const what = { mntr: 'a screen', scnr: 'a camera or scanner', link: 'a pair of devices' }[kind];
    return `“${fileName}” is the profile of ${what ?? 'something else than a press'}; Isle needs that of a press.`;
  }
  if (space !== 'CMYK')
    return `“${fileName}” is the profile of a printer with other inks (${space.trim()}); Isle needs one with cyan, magenta, yellow and black.`;
  return null;
}

/** Opens a profile that lies in memory; 0 where it is none. Little CMS keeps what it needs of it. */
function opened(lcms: Lcms, bytes: Uint8Array): number {
  const at = lcms._malloc(bytes.length);
  lcms.HEAPU8.set(bytes, at);
  const profile = lcms._cmsOpenProfileFromMem(at, bytes.length);
  lcms._free(at);
  return profile;
}

/** Colours of the screen to inks of a press and back, by Little CMS. */
export class Press {
  private constructor(
    private readonly lcms: Lcms,
    private readonly inward: number,
    private readonly outward: number,
  ) {}

  /** `null` where the profile does not lead both ways. */
  static async open(
    bytes: Uint8Array,
    { intent, blackPoint }: Pick<PressSettings, 'intent' | 'blackPoint'>,
  ): Promise<Press | null> {
    const lcms = await little();
    const [screen, press] = [lcms.cmsCreate_sRGBProfile(), opened(lcms, bytes)];
    const flags = blackPoint ? cmsFLAGS_BLACKPOINTCOMPENSATION : 0;
    const make = (from: number, format: number, to: number, toFormat: number, by: PressIntent): number =>
      lcms.cmsCreateTransform(from, format, to, toFormat, INTENTS[by], flags);
    try {
      if (press === 0) return null;
      const inward = make(screen, TYPE_RGB_8, press, TYPE_CMYK_8, intent);
      // How ink looks is no question of taste: what a press cannot show is to be seen.
      const outward = make(press, TYPE_CMYK_8, screen, TYPE_RGB_8, 'relative');
      const open = [inward, outward].filter((one) => one !== 0);
      if (open.length === 2) return new Press(lcms, inward, outward);
      for (const one of open) lcms.cmsDeleteTransform(one);
      return null;
    } finally {
      lcms.cmsCloseProfile(screen);
      if (press !== 0) lcms.cmsCloseProfile(press);
    }
  }

  /** Red, green, blue, 0 to 255, as cyan, magenta, yellow, black; 255 is the full ink. */
  toInks(rgb: Uint8Array): Uint8Array {
    return this.through(this.inward, rgb, 3, 4);
  }
  /** How inks look on the screen. */
  toScreen(inks: Uint8Array): Uint8Array {
    return this.through(this.outward, inks, 4, 3);
  }

  /** How far colours come out from what was asked for, ΔE2000. */
  differences(rgb: Uint8Array): Float32Array {
    const back = this.toScreen(this.toInks(rgb));
    const lab = (from: Uint8Array, at: number): ReturnType<typeof toLabD65> =>
      toLabD65(hexOf([from[at]!, from[at + 1]!, from[at + 2]!]));
    return Float32Array.from({ length: rgb.length / 3 }, (_one, index) =>
      deltaE2000Lab(lab(rgb, 3 * index), lab(back, 3 * index)),
    );
  }

  close(): void {
    this.lcms.cmsDeleteTransform(this.inward);
    this.lcms.cmsDeleteTransform(this.outward);
  }

  private through(transform: number, from: Uint8Array, wide: number, out: number): Uint8Array {
    const { lcms } = this;
    const count = Math.floor(from.length / wide);
    const made = new Uint8Array(count * out);
    const most = Math.min(count, AT_ONCE);
    const [source, target] = [lcms._malloc(most * wide), lcms._malloc(most * out)];
    for (let at = 0; at < count; at += most) {
      const pixels = Math.min(most, count - at);
      lcms.HEAPU8.set(from.subarray(at * wide, (at + pixels) * wide), source);
      lcms._cmsDoTransform(transform, source, target, pixels);
      made.set(lcms.HEAPU8.subarray(target, target + pixels * out), at * out);
    }
    lcms._free(source);
    lcms._free(target);
    return made;
  }
}
