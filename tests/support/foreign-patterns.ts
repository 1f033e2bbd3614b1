/**
 * SVG files in the style of other makers: one <pattern> each, in every combination of units, href, viewBox and
 * transform of SVG 2 (section 14.3). All are 360 × 300 px with one rectangle filled with the pattern.
 */
export type ForeignFile = { name: string; svg: string; id: string };

const BOX = { x: 40, y: 30, width: 240, height: 200 };
const rect = (fill: string): string =>
  `<rect x="${BOX.x}" y="${BOX.y}" width="${BOX.width}" height="${BOX.height}" fill="${fill}"/>`;

function file(name: string, defs: string, id = 'p', root = 'width="360" height="300"'): ForeignFile {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${root}><defs>${defs}</defs><rect width="360" height="300" fill="#fff"/>${rect(`url(#${id})`)}</svg>`;
  return { name, svg, id };
}

/** An arrow-like piece that shows how it is turned, in a 40 × 30 tile. */
const ART = '<path d="M4 4H24L18 12H36V24H4Z" fill="#10394d"/><circle cx="32" cy="8" r="4" fill="#e5572e"/>';
/** The same within 1 × 1. */
const SHARES =
  '<path d="M.1 .1H.6L.45 .4H.9V.8H.1Z" fill="#10394d"/><circle cx=".8" cy=".25" r=".1" fill="#e5572e"/>';

export const FOREIGN: ForeignFile[] = [
  file('user space', `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse">${ART}</pattern>`),
  file(
    'user space, moved tile',
    `<pattern id="p" x="13" y="7" width="40" height="30" patternUnits="userSpaceOnUse">${ART}</pattern>`,
  ),
  file('shares of the box', `<pattern id="p" width="0.2" height="0.25">${ART}</pattern>`),
  file(
    'percent of the box, moved',
    `<pattern id="p" x="5%" y="10%" width="20%" height="25%">${ART}</pattern>`,
  ),
  file(
    'content in shares of the box',
    `<pattern id="p" width="1" height="1" patternContentUnits="objectBoundingBox"><g transform="scale(0.5)">${SHARES}</g></pattern>`,
  ),
  file(
    'tile in user space, content in shares',
    `<pattern id="p" width="96" height="80" patternUnits="userSpaceOnUse" patternContentUnits="objectBoundingBox"><g transform="scale(0.35)">${SHARES}</g></pattern>`,
  ),
  file(
    'viewBox',
    `<pattern id="p" width="60" height="60" patternUnits="userSpaceOnUse" viewBox="0 0 40 30">${ART}</pattern>`,
  ),
  file(
    'viewBox, aligned and stretched',
    `<pattern id="p" width="50" height="60" patternUnits="userSpaceOnUse" viewBox="0 0 40 30" preserveAspectRatio="none">${ART}</pattern>`,
  ),
  file(
    'viewBox at the lower right',
    `<pattern id="p" width="50" height="60" patternUnits="userSpaceOnUse" viewBox="0 0 40 30" preserveAspectRatio="xMaxYMax meet">${ART}</pattern>`,
  ),
  file(
    'viewBox over shares',
    `<pattern id="p" width="0.25" height="0.25" viewBox="-2 -2 44 34">${ART}</pattern>`,
  ),
  file(
    'turned',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse" patternTransform="rotate(30)">${ART}</pattern>`,
  ),
  file(
    'turned, sized and moved',
    `<pattern id="p" x="4" y="9" width="40" height="30" patternUnits="userSpaceOnUse" patternTransform="translate(11 5) rotate(-45) scale(1.4)">${ART}</pattern>`,
  ),
  file(
    'sized unevenly',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse" patternTransform="scale(0.8 1.7)">${ART}</pattern>`,
  ),
  file(
    'skewed',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse" patternTransform="skewX(25)">${ART}</pattern>`,
  ),
  file(
    'mirrored',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse" patternTransform="scale(-1 1)">${ART}</pattern>`,
  ),
  file(
    'href to content',
    `<pattern id="base">${ART}</pattern><pattern id="p" href="#base" width="40" height="30" patternUnits="userSpaceOnUse"/>`,
  ),
  file(
    'xlink:href through three',
    `<pattern id="a" width="40" height="30">${ART}</pattern><pattern id="b" xlink:href="#a" patternUnits="userSpaceOnUse"/><pattern id="p" xlink:href="#b" patternTransform="rotate(20)"/>`,
  ),
  file(
    'href that takes over units and viewBox',
    `<pattern id="base" width="0.3" height="0.3" viewBox="0 0 40 30" patternTransform="rotate(10)">${ART}</pattern><pattern id="p" href="#base" x="0.1"/>`,
  ),
  file(
    'cut at the edges',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse"><rect width="40" height="30" fill="#f3c14b"/><circle cx="38" cy="15" r="9" fill="#10394d"/></pattern>`,
  ),
  file(
    'wrapped by hand',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse"><circle cx="0" cy="0" r="9" fill="#10394d"/><circle cx="40" cy="0" r="9" fill="#10394d"/><circle cx="0" cy="30" r="9" fill="#10394d"/><circle cx="40" cy="30" r="9" fill="#10394d"/></pattern>`,
  ),
  file(
    'strokes and groups with style',
    `<pattern id="p" width="24" height="24" patternUnits="userSpaceOnUse" style="stroke:#57213f;stroke-width:3"><g fill="none"><path d="M0 12H24"/><path d="M12 2V22" stroke-linecap="round"/></g></pattern>`,
  ),
  file(
    'a file with a viewBox of its own',
    `<pattern id="p" width="40" height="30" patternUnits="userSpaceOnUse">${ART}</pattern>`,
    'p',
    'width="360" height="300" viewBox="0 0 360 300"',
  ),
  file(
    'use and symbols inside',
    `<symbol id="s" viewBox="0 0 10 10"><path d="M0 0H10L5 10Z" fill="#5d7a52"/></symbol><pattern id="p" width="30" height="30" patternUnits="userSpaceOnUse"><use href="#s" x="3" y="3" width="20" height="20"/></pattern>`,
  ),
];

export const FOREIGN_BOX = BOX;
