import { apply, determinant, multiply } from '../geom/affine';
import type { PicturePlane } from '../geom/plane';
import { cross, type Point } from '../geom/point';
import { abuttingShares, type Edge } from '../lattice/abut';
import { unitArea } from '../lattice/cell';
import { latticeVector, type Lattice } from '../lattice/repeat';
import { nearly } from '../num/tolerance';
import type { PicturePaint } from '../recipe/recipe';
import type { Element } from './motif';
import type { Piece } from './piece';

/** The sides of a picture, as it lies in its own file. */
export type Side = 'top' | 'right' | 'bottom' | 'left';

/** What of a picture is fetched: its file, and what its numbers stand for where it is a numbered one. */
export type PictureFile = Pick<PicturePaint, 'asset' | 'slots'>;

/** A picture that meets others edge to edge: which of its sides do so along all of their length. */
export type MeetingPicture = { piece: Piece; picture: PicturePaint; sides: Record<Side, boolean> };

/** Pictures that leave nothing open, the files that its parts count, and what lies beside each at its edges. */
export type PlaneScene = PicturePlane & { files: PictureFile[]; edges: 'clamp' | 'wrap' | 'mirror' };

const SIDES: readonly Side[] = ['top', 'right', 'bottom', 'left'];

/** The picture of a piece that shows one alone, whole and as it is. */
function wholePicture({ elements, opacity, effects }: Piece): PicturePaint | null {
  const [element, more] = elements;
  if (!element?.picture || more || opacity < 1 || effects || element.opacity < 1 || element.clip) return null;
  return fillsItsFrame(element, element.picture) ? element.picture : null;
}

/** Whether a picture's frame is all of the picture and no more. */
function fillsItsFrame({ path }: Element, picture: PicturePaint): boolean {
  const ends = path.flatMap((segment) => (segment.op === 'M' || segment.op === 'L' ? [segment.to] : []));
  const frame = cornersOf(picture);
  const reach = Math.max(...frame.map(({ x, y }) => Math.abs(x) + Math.abs(y)), 1);
  return (
    path.every(({ op }) => op === 'M' || op === 'L' || op === 'Z') &&
    frame.every((corner) => ends.some((end) => Math.hypot(end.x - corner.x, end.y - corner.y) < 1e-6 * reach))
  );
}

const cornersOf = ({ width, height, matrix }: PicturePaint): Point[] =>
  [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ].map((corner) => apply(matrix, corner));

/** The pictures of a unit that meet others edge to edge, and the plane that they make where nothing else is seen. */
export function meetingPictures(
  pieces: readonly Piece[],
  lattice: Lattice,
): { meeting: MeetingPicture[]; plane: PlaneScene | null } {
  const whole = pieces.flatMap((piece) => {
    const picture = wholePicture(piece);
    return picture
      ? [{ piece, picture: { ...picture, matrix: multiply(piece.matrix, picture.matrix) } }]
      : [];
  });
  if (whole.length === 0 || whole.length > MOST_PICTURES) return { meeting: [], plane: null };
  const edges = whole.flatMap(({ picture }, index) => edgesOf(cornersOf(picture), index));
  const boxes = whole.map(({ piece }) => piece.box);
  const shares = abuttingShares(edges, boxes, lattice);
  const meeting = whole.flatMap(({ piece, picture }, index): MeetingPicture[] => {
    const sides = Object.fromEntries(
      SIDES.map((side, at) => {
        const edge = edges[index * SIDES.length + at];
        return [side, edge !== undefined && (shares.get(edge) ?? 0) > 1 - 1e-3];
      }),
    ) as Record<Side, boolean>;
    return SIDES.some((side) => sides[side]) ? [{ piece, picture, sides }] : [];
  });
  return { meeting, plane: planeOf(pieces, meeting, lattice) };
}

/** More pictures than this in one unit are not held against each other; they are drawn one by one. */
const MOST_PICTURES = 400;

function edgesOf(corners: readonly Point[], piece: number): Edge[] {
  const turned = cross(
    { x: corners[1]!.x - corners[0]!.x, y: corners[1]!.y - corners[0]!.y },
    { x: corners[3]!.x - corners[0]!.x, y: corners[3]!.y - corners[0]!.y },
  );
  const sign = turned < 0 ? -1 : 1;
  return corners.map((from, index) => {
    const to = corners[(index + 1) % corners.length]!;
    const size = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const inward = { x: (-(to.y - from.y) / size) * sign, y: ((to.x - from.x) / size) * sign };
    return { from, to, inward, piece, paint: '' };
  });
}

function planeOf(
  pieces: readonly Piece[],
  meeting: readonly MeetingPicture[],
  lattice: Lattice,
): PlaneScene | null {
  if (meeting.length !== pieces.length) return null;
  if (!meeting.every(({ sides }) => SIDES.every((side) => sides[side]))) return null;
  const area = meeting.reduce(
    (sum, { picture }) => sum + Math.abs(determinant(picture.matrix)) * picture.width * picture.height,
    0,
  );
  const open = unitArea(lattice);
  if (!nearly(area, open, 1e-6 * open)) return null;
  const files = [...new Map(meeting.map(({ picture }) => [fileKey(picture), picture])).values()];
  const keys = files.map(fileKey);
  const parts = lattice.copies.flatMap((copy) =>
    meeting.map(({ picture }) => {
      const { width, height, matrix } = picture;
      const laid = { ...matrix, e: matrix.e + copy.x, f: matrix.f + copy.y };
      return { picture: keys.indexOf(fileKey(picture)), matrix: laid, width, height };
    }),
  );
  const [a, b] = [latticeVector(lattice, 1, 0), latticeVector(lattice, 0, 1)];
  return {
    a,
    b,
    parts,
    files: files.map(({ asset, slots }) => ({ asset, slots })),
    edges: edgesBeside(meeting, a, b),
  };
}

const fileKey = ({ asset, slots }: PictureFile): string => `${asset} ${slots?.join(' ') ?? ''}`;

/** What lies beside each picture: itself where it is alone and laid straight, itself turned over in a mirror, others else. */
function edgesBeside(meeting: readonly MeetingPicture[], a: Point, b: Point): PlaneScene['edges'] {
  const [first, ...others] = meeting;
  if (!first) return 'clamp';
  const { matrix, width, height } = first.picture;
  const spans = (side: Point, by: Point): boolean =>
    nearly(Math.abs(cross(side, by)), 0, 1e-6 * Math.hypot(side.x, side.y) * Math.hypot(by.x, by.y));
  const across = { x: matrix.a * width, y: matrix.b * width };
  const down = { x: matrix.c * height, y: matrix.d * height };
  const straight = (spans(across, a) && spans(down, b)) || (spans(across, b) && spans(down, a));
  if (!straight) return 'clamp';
  if (others.length === 0) return 'wrap';
  const same = others.every(({ picture }) => fileKey(picture) === fileKey(first.picture));
  return same && meeting.length === 4 ? 'mirror' : 'clamp';
}
