import type { PatternDetail } from '$lib/contract/data';
import { sameValue } from '$lib/core/num/same';
import { checkRecipe } from '$lib/core/recipe/check';
import type { MeasuredRecipe } from '$lib/core/recipe/recipe';
import { call } from '../state/api';
import { toasts } from '../state/toasts.svelte';
import type { LayoutSession } from './session.svelte';

type Work = {
  id: string;
  name: string;
  revision: number;
  before: MeasuredRecipe;
  recipe: MeasuredRecipe;
  /** The fills that were worked on when it began. */
  fills: ReadonlySet<string>;
};

/** What is to become of numbers that were changed where a pattern is used; it waits for an answer. */
export type Question = { work: Work; detail: PatternDetail };

type Host = Pick<
  LayoutSession,
  'patterns' | 'chosen' | 'activePattern' | 'showRecipe' | 'refreshPatterns'
> & {
  exchangePattern: (fills: ReadonlySet<string>, pattern: string) => Promise<void>;
};

/**
 * The numbers of a measured pattern, changed where it is used. The stage shows them at once; nothing is kept until it is
 * answered what becomes of them.
 */
export class MeasuredTrial {
  private work: Work | null = $state.raw(null);
  private kept: MeasuredRecipe | null = $state.raw(null);
  /** Why the present numbers cannot be drawn; the stage shows the last ones that can. */
  problem: string | null = $state(null);
  question: Question | null = $state.raw(null);

  constructor(private readonly editor: Host) {}

  /** The recipe as it is being changed, where the pattern `id` is. */
  recipeOf(id: string): MeasuredRecipe | null {
    return this.work?.id === id ? this.work.recipe : null;
  }

  /** The recipe as it was before the gesture that is under way. */
  settledOf(id: string): MeasuredRecipe | null {
    return this.work?.id === id ? (this.kept ?? this.work.before) : null;
  }

  show(id: string, before: MeasuredRecipe, recipe: MeasuredRecipe, keeps: boolean): void {
    const pattern = this.editor.patterns.get(id);
    if (!pattern || this.question) return;
    const { name, newest } = pattern;
    const begun =
      this.work?.id === id
        ? this.work
        : { id, name, revision: newest, before, recipe, fills: this.fillsOf(id) };
    this.work = { ...begun, recipe };
    if (keeps) this.kept = recipe;
    const [wrong] = checkRecipe(recipe);
    this.problem = wrong?.message ?? null;
    if (!wrong) this.editor.showRecipe(id, begun.revision, recipe);
  }

  /** The fills with a pattern that are worked on now. */
  private fillsOf(pattern: string): ReadonlySet<string> {
    const active = this.editor.chosen.flatMap((shape) => this.editor.activePattern(shape) ?? []);
    return new Set(active.flatMap((fill) => (fill.pattern === pattern ? fill.id : [])));
  }

  /** Gives up the gesture that is under way. */
  cancel(): void {
    const { work } = this;
    if (work) this.show(work.id, work.before, this.kept ?? work.before, true);
  }

  /** The numbers are left: it is asked what becomes of them, if they are others now. */
  async leave(): Promise<void> {
    const { work, problem } = this;
    this.work = this.kept = null;
    this.problem = null;
    if (!work) return;
    if (problem !== null) toasts.problem(`The numbers of “${work.name}” are as they were: ${problem}`);
    if (problem !== null || sameValue(work.recipe, work.before)) return this.putBack(work);
    const found = await call('GET /patterns/{id}', { id: work.id });
    if (found.ok) this.question = { work, detail: found.value };
    else {
      this.putBack(work);
      toasts.problem(found.failure.message);
    }
  }

  private putBack({ id, revision, before }: Work): void {
    this.editor.showRecipe(id, revision, before);
  }

  /** Answers the question: a revision that all uses follow, a pattern for these fills alone, or nothing. */
  async answer(how: 'publish' | 'new' | 'nothing'): Promise<void> {
    const { question } = this;
    if (!question) return;
    const failed =
      how === 'publish' ? await publish(question) : how === 'new' ? await this.asNew(question) : null;
    if (failed !== null) return toasts.problem(failed);
    this.question = null;
    if (how !== 'publish') this.putBack(question.work);
    await this.editor.refreshPatterns();
  }

  /** A new pattern for the fills that the numbers were changed from; whatever is selected meanwhile. */
  private async asNew({ work, detail }: Question): Promise<string | null> {
    for (let number = 2; number < 200; number += 1) {
      const made = await call('POST /patterns/{id}/copies', {
        id: work.id,
        body: {
          name: `${detail.name} ${number}`,
          recipe: work.recipe,
          takesDraft: false,
        },
      });
      if (made.ok) {
        await this.editor.exchangePattern(work.fills, made.value.id);
        return null;
      }
      if (made.failure.code !== 'name_taken') return made.failure.message;
    }
    return `Too many patterns are named after “${detail.name}”; keep this one as new on the bench, under another name.`;
  }
}

async function publish({ work, detail }: Question): Promise<string | null> {
  const draft = await call('PUT /patterns/{id}/draft', {
    id: work.id,
    body: {
      base: detail.version,
      recipe: work.recipe,
    },
  });
  if (!draft.ok) return draft.failure.message;
  const made = await call('POST /patterns/{id}/revisions', {
    id: work.id,
    body: { base: draft.value.version, hold: [] },
  });
  return made.ok ? null : made.failure.message;
}
