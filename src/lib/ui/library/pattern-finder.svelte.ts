import type { Instead, PatternSummary } from '$lib/contract/data';
import type { PatternQuery } from '$lib/contract/given';
import { call } from '../state/api';

/** Patterns by what is typed and chosen: the whole list while nothing is, and the answer to the last question otherwise. */
export class PatternFinder {
  text = $state('');
  problem: string | null = $state(null);
  /** What words that no pattern has were taken for. */
  instead: Instead[] = $state.raw([]);
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

  /** What narrows the search beside the words: a query of the library. */
  private narrowing: PatternQuery = {};

  find(text: string): void {
    this.text = text;
    this.ready = this.ask();
  }

  narrow(by: PatternQuery): void {
    this.narrowing = by;
    this.ready = this.ask();
  }

  /** True while what is shown answers a question. */
  get isAnswer(): boolean {
    return this.answered !== null;
  }

  private async ask(): Promise<void> {
    const turn = ++this.asked;
    const query: PatternQuery = { ...this.narrowing };
    if (this.text.trim() !== '') query.search = this.text;
    if (Object.keys(query).length === 0) {
      this.answered = null;
      this.instead = [];
      return;
    }
    if (this.limit !== null) query.limit = this.limit;
    const answer = await call('GET /patterns', { query });
    if (turn !== this.asked) return;
    this.problem = answer.ok ? null : answer.failure.message;
    if (!answer.ok) return;
    this.answered = answer.value.patterns;
    this.instead = answer.value.instead ?? [];
  }
}
