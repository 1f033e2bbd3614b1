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

  /** Goes on with Tab, and with the arrows within a bar of tools, until what begins with a text has the keyboard; each press counts. */
  async tabTo(begins: string, back = false): Promise<void> {
    for (let count = 0; count < 40; count += 1) {
      if (await this.alongBar(begins)) return;
      if (back) await this.key('Shift', 'Tab');
      else await this.key('Tab');
      if (await this.isAt(begins)) return;
    }
    throw new Error(`Tab does not come to “${begins}”`);
  }

  /** Within a bar of tools that has it the arrows go there, the shorter way. */
  private async alongBar(begins: string): Promise<boolean> {
    const steps = await this.page.evaluate((wanted) => {
      const held = document.activeElement;
      const bar = held?.closest('[role="toolbar"]');
      const tools = [
        ...(bar?.querySelectorAll(':scope > button, :scope > .popover > .trigger') ?? []),
      ].filter((one) => !(one as HTMLButtonElement).disabled);
      const from = tools.findIndex((one) => one === held);
      const to = tools.findIndex((one) => one.getAttribute('aria-label')?.startsWith(wanted));
      if (from < 0 || to < 0 || from === to) return 0;
      const right = (to - from + tools.length) % tools.length;
      return right <= tools.length / 2 ? right : right - tools.length;
    }, begins);
    for (let step = 0; step < Math.abs(steps); step += 1)
      await this.key(steps > 0 ? 'ArrowRight' : 'ArrowLeft');
    return steps !== 0 && this.isAt(begins);
  }

  private isAt(begins: string): Promise<boolean> {
    return this.page.evaluate((wanted) => {
      const held = document.activeElement;
      const said = held?.getAttribute('aria-label') ?? held?.textContent ?? '';
      return said.replace(/\s+/g, ' ').trim().startsWith(wanted);
    }, begins);
  }
}
