import { describe, expect, it } from 'vitest';
import { seededRandom } from '../num/random';
import { outermost } from './outermost';
import { pathBox, transformPath, type Path } from './path';

const random = seededRandom(12);
const at = (reach: number) => ({ x: (random() - 0.5) * reach, y: (random() - 0.3) * reach });

/** A path of `count` steps, some of them curves whose control points stand out by far, in several subpaths. */
function wild(count: number, reach: number): Path {
  const path: Path = [{ op: 'M', to: at(reach) }];
  while (path.length < count) {
    const kind = random();
    if (kind < 0.4) path.push({ op: 'L', to: at(reach) });
    else if (kind < 0.9)
      path.push({
        op: 'C',
        c1: at(reach * (kind < 0.5 ? 4 : 1)),
        c2: at(reach * (kind < 0.45 ? 9 : 1)),
        to: at(reach),
      });
    else path.push({ op: 'Z' }, { op: 'M', to: at(reach) });
  }
  return path;
}

describe('the outermost parts of a path', () => {
  it('have the box of the whole path, however it is turned, skewed and reflected', () => {
    for (let round = 0; round < 200; round += 1) {
      const path = wild(60 + Math.floor(random() * 400), 10 ** (random() * 6 - 1));
      const matrix = { a: at(3).x, b: at(3).x, c: at(3).y, d: at(3).y, e: at(900).x, f: at(900).y };
      const [whole, short] = [path, outermost(path)].map((one) => pathBox(transformPath(matrix, one))!);
      const size = whole!.width + whole!.height + 1;
      for (const side of ['x', 'y', 'width', 'height'] as const)
        expect(Math.abs(whole![side] - short![side]) / size).toBeLessThan(1e-9);
    }
  });

  it('are few', () => {
    const star: Path = Array.from({ length: 5000 }, (_, index) => ({ op: index ? 'L' : 'M', to: at(100) }));
    expect(outermost(star).length).toBeLessThan(100);
    const ring: Path = Array.from({ length: 3000 }, (_, index) => {
      const [from, to] = [index / 500, (index + 1) / 500].map((angle) => ({
        x: Math.cos(angle) * (index % 7),
        y: Math.sin(angle) * (index % 7),
      }));
      return index ? { op: 'C', c1: from!, c2: to!, to: to! } : { op: 'M', to: from! };
    });
    expect(outermost(ring).length).toBeLessThan(ring.length);
  });

  it('of points on one line are found too', () => {
    const line: Path = Array.from({ length: 90 }, (_, index) => ({
      op: index ? 'L' : 'M',
      to: { x: (index * 37) % 90, y: 2 * ((index * 37) % 90) },
    }));
    expect(pathBox(outermost(line))).toEqual({ x: 0, y: 0, width: 89, height: 178 });
  });
});
