import type { FoundPatterns, PatternSummary } from '$lib/contract/data';
import { call } from '../state/api';

/** Patterns by what is typed: the whole list while nothing is, and the answer to the last question otherwise. */
export class PatternFinder {
  text = $state('');
  problem: string | null = $state(null);
  private answered: PatternSummary[] | null = $state.raw(null);
  private asked = 0;

  /** `all` gives the list without a search; `limit` is how many a search answers. */
  constructor(
    private readonly all: () => readonly PatternSummary[],
    private readonly limit: number | null = null,
  ) {}

  get shown(): readonly PatternSummary[] {
    return this.answered ?? this.all();
  }

  /** Resolves once what is shown answers what was typed last. */
  ready: Promise<void> = Promise.resolve();

  find(text: string): void {
    this.ready = this.ask(text);
  }

  private async ask(text: string): Promise<void> {
    this.text = text;
    const turn = ++this.asked;
    if (text.trim() === '') {
      this.answered = null;
      return;
    }
    const limit = this.limit === null ? '' : `limit=${this.limit}&`;
    const answer = await call<FoundPatterns>('GET', `/patterns?${limit}search=${encodeURIComponent(text)}`);
    if (turn !== this.asked) return;
    this.problem = answer.ok ? null : answer.failure.message;
    if (answer.ok) this.answered = answer.value.patterns;
  }
}
