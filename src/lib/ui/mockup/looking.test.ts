import { describe, expect, it } from 'vitest';
import { FRESH_CAMERA, LOOKS, MOCKUP_LIMITS } from '$lib/core/mockup/mockup';
import { boundedLook, lookByKey } from './looking';

const key = (name: string, held: Partial<KeyboardEvent> = {}): KeyboardEvent =>
  ({ key: name, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...held }) as KeyboardEvent;

describe('where one looks from', () => {
  it('stays within what can be looked at, turned all round as often as one likes', () => {
    const wild = boundedLook({ turn: 765.4, raised: 400, zoom: 1e9, x: -80, y: 80 });
    const { raised, zoom, moved } = MOCKUP_LIMITS;
    expect(wild).toEqual({
      ...{ turn: 45, raised: raised.most, zoom: zoom.most },
      ...{ x: moved.least, y: moved.most },
    });
    const below = boundedLook({ turn: -190, raised: -90, zoom: 0, x: 0.00004, y: 0 });
    expect(below).toMatchObject({ raised: raised.least, zoom: zoom.least, x: 0 });
    expect(((below.turn % 360) + 360) % 360).toBe(170);
  });

  it('is turned by arrows as under a hand, five times as far with Shift', () => {
    const camera = { ...FRESH_CAMERA, turn: 30, raised: 20 };
    expect(lookByKey(key('ArrowLeft'), camera)).toEqual({ turn: 33 });
    expect(lookByKey(key('ArrowRight', { shiftKey: true }), camera)).toEqual({ turn: 15 });
    expect(lookByKey(key('ArrowUp'), camera)).toEqual({ raised: 17 });
    expect(lookByKey(key('ArrowDown', { shiftKey: true }), camera)).toEqual({ raised: 35 });
  });

  it('comes closer and back by the same steps, and shows all of it again', () => {
    const nearer = lookByKey(key('+'), FRESH_CAMERA)!.zoom!;
    expect(nearer).toBeGreaterThan(1);
    expect(lookByKey(key('-'), { ...FRESH_CAMERA, zoom: nearer })!.zoom).toBeCloseTo(1, 12);
    expect(lookByKey(key('0'), { ...FRESH_CAMERA, zoom: 3, x: 1 })).toEqual({ zoom: 1, x: 0, y: 0 });
  });

  it('has a key for each view with a name, and leaves every other key to whom it belongs', () => {
    for (const { key: name, turn, raised } of LOOKS)
      expect(lookByKey(key(name), FRESH_CAMERA)).toEqual({ turn, raised, zoom: 1, x: 0, y: 0 });
    expect(new Set(LOOKS.map((one) => one.key)).size).toBe(LOOKS.length);
    expect(lookByKey(key('a'), FRESH_CAMERA)).toBeNull();
    for (const held of ['ctrlKey', 'metaKey', 'altKey'])
      expect(lookByKey(key('ArrowLeft', { [held]: true }), FRESH_CAMERA)).toBeNull();
  });
});
