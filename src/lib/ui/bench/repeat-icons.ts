import type { Repeat } from '$lib/core/lattice/repeat';

const box = (x: number, y: number): string => `M${x} ${y}h10v8h-10Z`;
const tri = (x: number, y: number, sx: 1 | -1, sy: 1 | -1): string => `M${x} ${y}l${10 * sx} 0l0 ${8 * sy}Z`;

/** The five ways to lay units, each with a small drawing on a field of 25 × 20. */
export const REPEAT_ICONS: readonly {
  kind: Repeat['kind'];
  label: string;
  title: string;
  paths: string[];
}[] = [
  {
    kind: 'straight',
    label: 'Straight',
    title: 'Units in rows and columns',
    paths: [box(1, 1), box(13, 1), box(1, 11), box(13, 11)],
  },
  {
    kind: 'brick',
    label: 'Brick',
    title: 'Every row is shifted along',
    paths: [box(1, 1), box(13, 1), box(-5, 11), box(7, 11), box(19, 11)],
  },
  {
    kind: 'half-drop',
    label: 'Half-drop',
    title: 'Every column is shifted down',
    paths: [box(1, 1), box(1, 11), box(13, -4), box(13, 6), box(13, 16)],
  },
  {
    kind: 'mirror',
    label: 'Mirror',
    title: 'Every second unit is turned over, across and down',
    paths: [tri(11.5, 9, -1, -1), tri(13.5, 9, 1, -1), tri(11.5, 11, -1, 1), tri(13.5, 11, 1, 1)],
  },
  {
    kind: 'group',
    label: 'Group',
    title: 'One of the 17 plane groups',
    paths: [0, 60, 120, 180, 240, 300].map((degrees) => {
      const at = (angle: number, r: number): string =>
        `${(12.5 + r * Math.cos((angle * Math.PI) / 180)).toFixed(1)} ${(10 + r * Math.sin((angle * Math.PI) / 180)).toFixed(1)}`;
      return `M${at(degrees, 2)}L${at(degrees + 8, 9.5)}L${at(degrees + 44, 7)}Z`;
    }),
  },
];
