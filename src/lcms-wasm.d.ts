/** What Isle uses of Little CMS as a WebAssembly module; the package has no types of its own. */
declare module 'lcms-wasm' {
  export const INTENT_PERCEPTUAL: number;
  export const INTENT_RELATIVE_COLORIMETRIC: number;
  export const cmsFLAGS_BLACKPOINTCOMPENSATION: number;
  export const cmsFLAGS_NOCACHE: number;
  export const cmsInfoDescription: number;
  export const TYPE_RGB_8: number;
  export const TYPE_CMYK_8: number;
  export type Lcms = {
    HEAPU8: Uint8Array;
    _malloc(bytes: number): number;
    _free(at: number): void;
    _cmsOpenProfileFromMem(at: number, bytes: number): number;
    _cmsDoTransform(transform: number, from: number, to: number, pixels: number): void;
    cmsCloseProfile(profile: number): void;
    cmsCreate_sRGBProfile(): number;
    cmsGetProfileInfoASCII(profile: number, info: number, language: string, country: string): string;
    cmsCreateTransform(
      from: number,
      fromFormat: number,
      to: number,
      toFormat: number,
      intent: number,
      flags: number,
    ): number;
    cmsDeleteTransform(transform: number): void;
  };
  export function instantiate(): Promise<Lcms>;
}
