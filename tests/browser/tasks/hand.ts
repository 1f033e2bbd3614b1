import type { KeyInput, Page } from 'puppeteer-core';
import { drag, middle, named } from '../../support/browser';

/** A hand that does a task and counts what it does: each press, drag, key or typed text is one action. */
export class Hand {
  actions = 0;

  constructor(readonly page: Page) {}

  /** Presses what is named so. */
  async press(name: string, tags?: string): Promise<void> {
    this.actions += 1;
    await (await named(this.page, name, tags)).click();
  }

  /** Presses what begins with a text, as a button that says what it holds. */
  async pressOf(selector: string, begins: string, times = 1): Promise<void> {
    this.actions += 1;
    const found = await this.page.waitForFunction(
      (wanted, start) =>
        [...document.querySelectorAll<HTMLElement>(wanted)].find((one) => {
          const said = one.getAttribute('aria-label') ?? one.textContent ?? '';
          return said.replace(/\s+/g, ' ').trim().startsWith(start) && one.getBoundingClientRect().width > 0;
        }),
      { timeout: 10_000 },
      selector,
      begins,
    );
    await (found.asElement() as unknown as { click(options: object): Promise<void> }).click({ count: times });
  }

  async pressAt(at: readonly [number, number]): Promise<void> {
    this.actions += 1;
    await this.page.mouse.click(...at);
  }

  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    this.actions += 1;
    await drag(this.page, [...from], [...to]);
  }

  /** Drags what a selector finds by so much. */
  async dragBy(selector: string, x: number, y: number): Promise<void> {
    const from = await middle(this.page, selector);
    await this.drag(from, [from[0] + x, from[1] + y]);
  }

  async type(text: string): Promise<void> {
    this.actions += 1;
    await this.page.keyboard.type(text);
  }

  async key(...chord: KeyInput[]): Promise<void> {
    this.actions += 1;
    const [last, ...held] = chord.reverse();
    for (const key of held) await this.page.keyboard.down(key);
    await this.page.keyboard.press(last!);
    for (const key of held) await this.page.keyboard.up(key);
    await this.page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => resolve(null))));
  }

  async keys(...keys: KeyInput[]): Promise<void> {
    for (const key of keys) await this.key(key);
  }

  /** Goes on with Tab until what begins with a text has the keyboard; each press counts. */
  async tabTo(begins: string, back = false): Promise<void> {
    for (let count = 0; count < 40; count += 1) {
      if (back) await this.key('Shift', 'Tab');
      else await this.key('Tab');
      const said = await this.page.evaluate(() => {
        const held = document.activeElement;
        return (held?.getAttribute('aria-label') ?? held?.textContent ?? '').replace(/\s+/g, ' ').trim();
      });
      if (said.startsWith(begins)) return;
    }
    throw new Error(`Tab does not come to “${begins}”`);
  }
}
