import type { StudioFont } from '$lib/contract/data';
import { call } from './api';
import { FONTS } from './fonts';

/** The fonts that people brought, read once they are first asked for. */
class StudioFonts {
  all: readonly StudioFont[] = $state.raw([]);
  private asked = false;

  /** Every font to choose from: those that come with Isle, then the studio’s. */
  readonly choices = $derived.by((): (readonly [string, string])[] => [
    ...FONTS.map(({ id, label }) => [id, label] as const),
    ...this.all.map(({ id, name }) => [id, name] as const),
  ]);

  want(): void {
    if (!this.asked) void this.read();
  }
  async read(): Promise<void> {
    this.asked = true;
    const found = await call('GET /fonts');
    if (found.ok) this.all = found.value;
    else this.asked = false;
  }
}

export const studioFonts = new StudioFonts();
