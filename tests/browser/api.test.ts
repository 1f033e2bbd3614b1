import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { describe, expect, inject, it } from 'vitest';
import type { LayoutData, FoundPatterns, PatternDetail } from '../../src/lib/contract/data';
import type { Failure } from '../../src/lib/contract/failure';
import { freePort, startServer } from '../../scripts/lib/serve.mjs';
import {
  api,
  exportPng,
  getLayout,
  layoutWith,
  must,
  publishedPattern,
  unique,
  type Answer,
} from '../support/api';
import { block, dot, place, recipe } from '../support/recipes';
import { filledShape } from '../support/scenes';

const good = recipe({ motifs: [block('b', 40, 40)], placings: [place('b', 50, 50)] });
const failure = (answer: { body: unknown }): Failure => answer.body as Failure;

describe('bad input gets one clear sentence, the field and the limit', () => {
  it.each([
    [
      'a unit of no width',
      { ...good, unit: { width: 0, height: 100 } },
      'unit.width',
      /at least 0.378 px; 0 px was given/,
    ],
    [
      'a unit of absurd size',
      { ...good, unit: { width: 1e8, height: 100 } },
      'unit.width',
      /at most 20000 px/,
    ],
    [
      'text for a number',
      { ...good, unit: { width: 'wide', height: 100 } },
      'recipe.unit.width',
      /finite number; “wide” was given/,
    ],
    [
      'a step without end',
      { ...good, repeat: { kind: 'brick', step: 7, run: 'progressive' } },
      'repeat.step',
      /from 0 to 1; 7 was given/,
    ],
    [
      'an unknown repeat',
      { ...good, repeat: { kind: 'spiral' } },
      'recipe.repeat.kind',
      /“straight” or “brick”/,
    ],
    [
      'a colour that is none',
      { ...good, slots: [{ id: 'ink', name: 'Ink', colour: 'red' }] },
      'recipe.slots.0.colour',
      /#rrggbb/,
    ],
  ])('%s', async (_what, bad, path, sentence) => {
    const answer = await api('POST', '/patterns', { name: unique('Bad'), recipe: bad });
    expect(answer.status).toBe(400);
    expect(failure(answer)).toMatchObject({ code: 'invalid', path });
    expect(failure(answer).message).toMatch(sentence);
  });

  it('a shape without width, a scale of 0, a text for an angle, an unknown pattern: nothing of the batch is kept', async () => {
    const pattern = await publishedPattern(good);
    const layout = await layoutWith([], { width: 300, height: 300 });
    const shape = filledShape({ x: 0, y: 0, width: 100, height: 100 }, { pattern });
    const fill = shape.fills[0] as object;
    for (const [bad, path, sentence] of [
      [{ ...shape, width: 0 }, 'changes.1.shape.width', /at least 0.01; 0 was given/],
      [{ ...shape, fills: [{ ...fill, scaleX: 0 }] }, 'changes.1.shape.fills.0.scaleX', /at least 0.001/],
      [
        { ...shape, fills: [{ ...fill, rotation: 'askew' }] },
        'changes.1.shape.fills.0.rotation',
        /“askew” was given/,
      ],
      [
        { ...shape, fills: [{ ...fill, pattern: 'gone' }] },
        'changes.1.shape.fills.0.pattern',
        /no pattern with the id “gone”/,
      ],
    ] as const) {
      const changes = [
        { do: 'put-shape', shape: { ...shape, id: 'first', fills: [] } },
        { do: 'put-shape', shape: bad },
      ];
      const answer = await api('POST', `/layouts/${layout.id}/changes`, { base: 1, changes });
      expect(failure(answer).path).toBe(path);
      expect(failure(answer).message).toMatch(sentence);
    }
    expect((await getLayout(layout.id)).layout.shapes).toEqual([]);
  });

  it('a hostile SVG loses its script, and damaged or oversized ones are refused', async () => {
    const send = (svg: string, fileName = 'a.svg') => api('POST', '/motifs', { fileName, svg });
    const wrap = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg">${body}</svg>`;
    const scripted = await send(wrap('<script>x()</script><path d="M0 0h9v9z"/>'));
    expect(scripted.status).toBe(200);
    expect(scripted.body).toMatchObject({ notes: ['A script was left out.'] });
    expect(failure(await send('<!DOCTYPE svg [<!ENTITY a SYSTEM "b">]><svg/>')).message).toMatch(
      /“a.svg”: .*entities/,
    );
    expect(failure(await send('\u0089PNG\r\n', 'photo.svg')).message).toMatch(/“photo.svg”: .*not an SVG/);
    expect(failure(await send(wrap(' '.repeat(5_100_000)))).message).toMatch(
      /5.1 MB; an SVG file may have at most 5 MB/,
    );
    const huge = await send(wrap(' '.repeat(50_000_000)));
    expect(huge.status).toBe(413);
    expect(failure(huge).message).toMatch(/at most 12 MB/);
  });

  it('an address or a method that there is not, in the form of every failure', async () => {
    const unread = await api('GET', '/patterns/%E0%A4%A');
    expect([unread.status, failure(unread).code]).toEqual([400, 'invalid']);
    expect(failure(unread).message).toMatch(/address cannot be read/);
    const method = await api('DELETE', '/palettes');
    expect([method.status, failure(method).code]).toEqual([405, 'wrong_method']);
    expect(failure(method).message).toMatch(/^DELETE is not answered at \/api\/v1\/palettes/);
    const nothing = await api('GET', '/nothing');
    expect([nothing.status, failure(nothing).code]).toEqual([404, 'not_found']);
  });

  it('a name already taken, whatever its case and accents', async () => {
    const name = unique('Bouée');
    await publishedPattern(good, name);
    const answer = await api('POST', '/patterns', {
      name: name.toUpperCase().replace('É', 'E'),
      recipe: good,
    });
    expect(answer.status).toBe(409);
    expect(failure(answer)).toMatchObject({ code: 'name_taken', path: 'name' });
  });

  it('an unknown id, an unknown route, a body that is no JSON, another site’s page', async () => {
    expect((await api('GET', '/patterns/gone')).status).toBe(404);
    expect(failure(await api('GET', '/nothing')).message).toMatch(/no route/);
    const { address } = { address: (await import('vitest')).inject('address') };
    const raw = await fetch(`${address}/api/v1/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{',
    });
    expect(await raw.json()).toMatchObject({ code: 'unreadable' });
    const foreign = await fetch(`${address}/api/v1/projects`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: 'http://elsewhere.test' },
      body: JSON.stringify({ name: 'x' }),
    });
    expect(foreign.status).toBe(403);
  });

  it('a stale save gets 409 with what was saved since', async () => {
    const layout = await layoutWith([], { width: 300, height: 300 });
    await must('POST', `/layouts/${layout.id}/changes`, { base: 1, changes: [{ do: 'page', width: 400 }] });
    const answer = await api('POST', `/layouts/${layout.id}/changes`, {
      base: 1,
      changes: [{ do: 'page', width: 500 }],
    });
    expect(answer.status).toBe(409);
    expect(failure(answer)).toMatchObject({
      code: 'stale',
      current: { version: 2, since: [{ version: 2, changes: [{ do: 'page', width: 400 }] }] },
    });
  });

  it('an export over the limit names the limit and what would work', async () => {
    const layout = await layoutWith([], { width: 2400, height: 2400 });
    const answer = await api('POST', `/layouts/${layout.id}/exports`, { ppi: 9600 });
    expect(answer.status).toBe(413);
    expect(failure(answer)).toMatchObject({ code: 'too_large', path: 'ppi' });
    expect(failure(answer).message).toMatch(/240000 × 240000 px.*256 million.*Up to 640 ppi/);
  });
});

describe('exports', () => {
  it('of 15,000 × 15,000 px work', async () => {
    const pattern = await publishedPattern(good);
    const shape = filledShape(
      { x: 10, y: 10, width: 2000, height: 2000 },
      { pattern, rotation: 31, scaleX: 2.37, scaleY: 2.37 },
    );
    const layout = await layoutWith([shape], { width: 2400, height: 2400 });
    const png = await exportPng(layout.id, 600);
    expect(await sharp(png, { limitInputPixels: false }).metadata()).toMatchObject({
      width: 15_000,
      height: 15_000,
      density: 600,
    });
  });

  it('can be stopped', async () => {
    const layout = await layoutWith([], { width: 2400, height: 2400 });
    const job = await must<{ id: string }>('POST', `/layouts/${layout.id}/exports`, { ppi: 600 });
    const stopped = await must<{ state: string }>('DELETE', `/exports/${job.id}`);
    expect(['cancelled', 'done']).toContain(stopped.state);
    if (stopped.state === 'cancelled') expect((await api('GET', `/exports/${job.id}/file`)).status).toBe(400);
  });

  it('of a pattern finer than a pixel end soon and show its mean colour', async () => {
    const half = recipe({
      slots: [{ id: 'ink', name: 'Ink', colour: '#000000' }],
      motifs: [block('b', 50, 100)],
      placings: [place('b', 25, 50)],
    });
    const pattern = await publishedPattern(half);
    const shape = filledShape(
      { x: 0, y: 0, width: 3000, height: 3000 },
      { pattern, scaleX: 0.002, scaleY: 0.002, rotation: 20 },
    );
    const layout = await layoutWith([shape], { width: 3000, height: 3000 });
    const { data } = await sharp(await exportPng(layout.id, 96))
      .extract({ left: 900, top: 900, width: 8, height: 8 })
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect(Math.abs((data[0] ?? 0) - 127.5)).toBeLessThan(6);
  });
});

describe('the OpenAPI document', () => {
  it('has every route of the table, with bodies from the same schemas', async () => {
    const document = await must<{ paths: Record<string, Record<string, { requestBody?: object }>> }>(
      'GET',
      '/openapi.json',
    );
    expect(document.paths['/layouts/{id}/changes']?.post?.requestBody).toBeDefined();
    expect(Object.keys(document.paths).length).toBeGreaterThan(18);
  });
});

describe('a server killed in the middle of saves', () => {
  it('has lost no save that it acknowledged', async () => {
    const dataFolder = mkdtempSync(join(tmpdir(), 'isle-kill-'));
    const port: number = await freePort(4500);
    const start = (): Promise<{ child: import('node:child_process').ChildProcess; address: string }> =>
      startServer({ port, dataFolder, demo: false, stdio: 'ignore' });
    let { child, address } = await start();
    const call = (method: string, path: string, body?: unknown) => api(method, path, body, address);
    const project = (await call('POST', '/projects', { name: 'Kill' })).body as { id: string };
    const layout = (
      await call('POST', `/projects/${project.id}/layouts`, {
        name: 'L',
        width: 100,
        height: 100,
        measure: 'px',
      })
    ).body as { id: string };
    let acknowledged = 1;
    for (let round = 0; round < 3; round += 1) {
      const killAt = acknowledged + 25;
      for (;;) {
        const changes = [
          { do: 'page', width: 100 + acknowledged },
          {
            do: 'put-shape',
            shape: {
              ...filledShape({ x: acknowledged, y: 0, width: 5, height: 5 }),
              id: `s${acknowledged}`,
              fills: [],
            },
          },
        ];
        const sent = call('POST', `/layouts/${layout.id}/changes`, { base: acknowledged, changes });
        if (acknowledged === killAt) child.kill('SIGKILL');
        const answer = await sent.catch(() => null);
        if (answer?.status !== 200) break;
        acknowledged += 1;
      }
      await new Promise((resolve) =>
        child.exitCode === null && child.signalCode === null ? child.once('exit', resolve) : resolve(null),
      );
      ({ child, address } = await start());
      const { layout: kept } = (await call('GET', `/layouts/${layout.id}`)).body as { layout: LayoutData };
      // The save that was under way may have landed; everything acknowledged before must have.
      expect([acknowledged, acknowledged + 1]).toContain(kept.version);
      expect(kept.shapes).toHaveLength(kept.version - 1);
      expect(kept.width).toBe(100 + kept.version - 1);
      acknowledged = kept.version;
    }
    child.kill();
    rmSync(dataFolder, { recursive: true, force: true });
  });
});

describe('pictures brought in as motifs', () => {
  const send = async (bytes: Buffer, name: string): Promise<Answer> => {
    const answer = await fetch(`${inject('address')}/api/v1/motifs/pictures`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream', 'x-file-name': encodeURIComponent(name) },
      body: new Uint8Array(bytes),
    });
    return { status: answer.status, body: await answer.json() };
  };
  const plain = (width = 60, height = 30): ReturnType<typeof sharp> =>
    sharp({ create: { width, height, channels: 4, background: { r: 200, g: 90, b: 40, alpha: 0.5 } } });
  type Made = { name: string; notes: string[]; content: { width: number; height: number } };

  it('keep their alpha and their resolution', async () => {
    const { status, body } = await send(
      await plain().withMetadata({ density: 300 }).png().toBuffer(),
      'Möwe.png',
    );
    const { name, notes, content } = body as Made;
    expect([status, name, notes]).toEqual([200, 'Möwe', []]);
    // 60 px at 300 ppi are 0.2 in, 19.2 CSS px.
    expect(content.width).toBeCloseTo(19.2, 3);
    expect(content.height).toBeCloseTo(9.6, 3);
  });

  it.each([
    ['a CMYK JPEG', async () => plain().flatten().toColourspace('cmyk').jpeg().toBuffer(), /CMYK/],
    ['a 16-bit PNG', async () => plain().toColourspace('rgb16').png().toBuffer(), /eight bits/],
    [
      'an animated WebP',
      async () => {
        const frames = await Promise.all(
          [plain(20, 20), plain(20, 20).negate()].map((one) => one.png().toBuffer()),
        );
        return sharp(frames, { join: { animated: true } })
          .webp()
          .toBuffer();
      },
      /first picture/,
    ],
  ])('say what was changed: %s', async (_what, make, sentence) => {
    const { status, body } = await send(await make(), 'changed');
    expect(status).toBe(200);
    expect((body as Made).notes.join(' ')).toMatch(sentence);
  });

  it.each([
    [
      'a truncated JPEG',
      async () => {
        const noise = Buffer.from(Array.from({ length: 300 * 300 * 3 }, (_, at) => (at * 7919) % 251));
        const whole = await sharp(noise, { raw: { width: 300, height: 300, channels: 3 } })
          .jpeg()
          .toBuffer();
        return whole.subarray(0, whole.length / 2);
      },
      400,
      /damaged or cut off/,
    ],
    ['a GIF', async () => plain().gif().toBuffer(), 422, /PNG, JPEG or WebP/],
    ['no picture', async () => Buffer.from('hello'), 422, /no picture/],
    ['nothing', async () => Buffer.alloc(0), 400, /empty/],
    ['169 million pixels', async () => plain(13_000, 13_000).png().toBuffer(), 413, /169 million/],
  ])('are refused in a sentence: %s', async (_what, make, status, sentence) => {
    const answer = await send(await make(), 'bad file');
    expect((answer.body as { message: string }).message).toMatch(sentence);
    expect(answer.status).toBe(status);
  });
});

describe('recipes that cannot be drawn', () => {
  it.each([
    ['a step that is no number', { repeat: { kind: 'brick', step: null, run: 'progressive' } }, /step/i],
    ['a unit of nothing', { unit: { width: 0, height: 10 } }, /unit width/i],
    [
      'too many placings',
      { placings: Array.from({ length: 5001 }, (_, at) => place('d', at, 0, { id: `p${at}` })) },
      /5000|placings/,
    ],
    [
      'a gradient that cannot close',
      {
        repeat: { kind: 'brick', step: 0.5, run: 'progressive' },
        ground: {
          kind: 'linear',
          along: 'across',
          stops: [
            { at: 0, slot: 'ink' },
            { at: 0.5, slot: 'paper' },
          ],
        },
      },
      /break/,
    ],
  ])('are refused in a sentence: %s', async (_what, change, sentence) => {
    const of = { ...recipe({ motifs: [dot('d', 5)], placings: [place('d', 5, 5)] }), ...change };
    const answer = await api('POST', '/patterns', { name: unique('Bad'), recipe: of });
    expect(answer.status).toBe(400);
    expect((answer.body as { message: string }).message).toMatch(sentence);
  });

  it('but 5,000 placings are taken, drawn and checked', async () => {
    const placings = Array.from({ length: 5000 }, (_, at) =>
      place('d', (at % 100) * 8, Math.floor(at / 100) * 8, { id: `p${at}` }),
    );
    const of = recipe({ unit: { width: 800, height: 400 }, motifs: [dot('d', 5)], placings });
    const id = await publishedPattern(of);
    const swatch = await fetch(
      `${inject('address')}/api/v1/patterns/${id}/revisions/1/swatch?width=100&height=60`,
    );
    expect(swatch.status).toBe(200);
    expect((await swatch.text()).length).toBeGreaterThan(100_000);
    // Out of the way of the views that the other tests open.
    await must('PUT', `/patterns/${id}/archived`, { archived: true });
  });
});

describe('stock', () => {
  it('is protected and can only be kept as new', async () => {
    const {
      patterns: [stock],
    } = await must<FoundPatterns>('GET', '/patterns?search=fine%20hatch');
    expect(stock?.stock).toBe(true);
    const { recipe: held } = await must<PatternDetail>('GET', `/patterns/${stock?.id}`);
    const refused = await api('PUT', `/patterns/${stock?.id}/draft`, { base: stock?.version, recipe: held });
    expect([refused.status, (refused.body as { message: string }).message]).toEqual([
      403,
      expect.stringMatching(/keep it as new/),
    ]);
    const name = unique('My hatch');
    const made = await must<{ id: string }>('POST', `/patterns/${stock?.id}/copies`, { name, recipe: held });
    const copy = await must<PatternDetail>('GET', `/patterns/${made.id}`);
    expect([copy.name, copy.stock, copy.newest]).toEqual([name, false, 1]);
  });
});
