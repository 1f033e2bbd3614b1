import type { BenchAsk, BenchKind, BenchReply, BenchWork } from '../contract/bench-work';
import { combineAreas } from '../core/geom/boolean';
import { strokeOutline } from '../core/geom/outline';
import { formatPath, parsePath } from '../core/geom/path';
import { repeatFigure } from '../core/picture/repeat';
import { seamsOf } from '../core/picture/seam';
import { premultiply } from '../core/raster/alpha';
import { widestGap } from '../core/scene/gap';
import { scatter } from '../core/scene/scatter';
import { thinPieces } from '../core/scene/thin';
import { findTouches } from '../core/scene/touch';
import { compileUnit } from '../core/scene/unit';

/** The bench's heavy work, off the page's thread. */
type Workers = { [K in BenchKind]: (ask: BenchWork[K]['ask']) => BenchWork[K]['reply'] };

let made = 0;

const WORK: Workers = {
  checks({ recipe, near }) {
    const scene = compileUnit(recipe, { upright: true, skipAbutments: true });
    return { gap: widestGap(scene), touches: findTouches(scene, near), thin: thinPieces(scene) };
  },
  pictures({ picture, distances, ...cell }) {
    premultiply(picture.data);
    return {
      seams: seamsOf(picture, { kind: 'straight' }),
      repeat: distances.map((distance) => repeatFigure({ picture, ...cell }, distance)),
    };
  },
  scatter({ recipe, plan }) {
    return scatter(
      recipe,
      plan,
      () => `sc${plan.seed}-${(made += 1)}-${Math.random().toString(36).slice(2, 8)}`,
    );
  },
  combine({ operation, elements }) {
    const areas = elements.flatMap(({ d, fillRule }) => {
      const read = parsePath(d);
      return read.ok ? [{ path: read.path, rule: fillRule }] : [];
    });
    const result = combineAreas(operation, areas);
    return result.ok ? { ok: true, d: formatPath(result.path) } : result;
  },
  outline({ d, stroke }) {
    const read = parsePath(d);
    if (!read.ok) return read;
    const result = strokeOutline(read.path, stroke);
    return result.ok ? { ok: true, d: formatPath(result.path) } : result;
  },
};

addEventListener('message', ({ data }: MessageEvent<BenchAsk>) => {
  const { id, kind, ask } = data;
  const answer = (reply: BenchReply): void => postMessage(reply);
  try {
    const work = WORK[kind] as (ask: unknown) => unknown;
    answer({ id, reply: work(ask) });
  } catch (error) {
    answer({ id, fault: error instanceof Error ? error.message : String(error) });
  }
});
