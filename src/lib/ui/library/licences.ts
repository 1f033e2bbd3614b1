import spdxIds from 'spdx-license-ids/index.json';

/** Licences that textures, drawings and fonts often come with; names as their makers write them. */
export const USUAL_LICENCES: readonly { id: string; name: string; attribution: boolean }[] = [
  { id: 'CC0-1.0', name: 'Creative Commons Zero 1.0', attribution: false },
  { id: 'CC-BY-4.0', name: 'Creative Commons Attribution 4.0', attribution: true },
  { id: 'CC-BY-SA-4.0', name: 'Creative Commons Attribution-ShareAlike 4.0', attribution: true },
  { id: 'CC-BY-ND-4.0', name: 'Creative Commons Attribution-NoDerivatives 4.0', attribution: true },
  { id: 'CC-BY-NC-4.0', name: 'Creative Commons Attribution-NonCommercial 4.0', attribution: true },
  { id: 'OFL-1.1', name: 'SIL Open Font License 1.1', attribution: false },
  { id: 'MIT', name: 'MIT License', attribution: true },
  { id: 'Apache-2.0', name: 'Apache License 2.0', attribution: true },
];

const KNOWN = new Map(spdxIds.map((id) => [id.toLowerCase(), id]));

/** A licence as SPDX spells it, or the text as it was given; and whether SPDX knows it. */
export function readLicence(text: string): { licence: string; known: boolean } {
  const id = KNOWN.get(text.trim().toLowerCase());
  return id ? { licence: id, known: true } : { licence: text.trim(), known: false };
}

/** All SPDX identifiers, the usual ones first. */
export const LICENCE_IDS: readonly string[] = [
  ...USUAL_LICENCES.map(({ id }) => id),
  ...spdxIds.filter((id) => !USUAL_LICENCES.some((usual) => usual.id === id)),
];

/** True where a licence is known to ask for a credit. */
export const asksForCredit = (licence: string): boolean =>
  USUAL_LICENCES.some(({ id, attribution }) => id === licence && attribution) || licence.startsWith('CC-BY');
