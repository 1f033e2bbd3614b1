import type { PatternDetail, PublishPreview } from '$lib/contract/data';
import { done, fail, type Outcome } from '$lib/contract/failure';
import { followRecipe } from '$lib/core/recipe/links';
import type { Problem } from '$lib/core/recipe/problem';
import type { Recipe } from '$lib/core/recipe/recipe';
import { sameValue } from '$lib/core/num/same';
import { measuredName } from '$lib/core/recipe/measured';
import { sayLength } from '../library/say';
import { call } from '../state/api';
import { History } from '../state/history.svelte';
import type { KnownLinks } from '../state/links';
import { onlyBy } from '../state/look-on';
import { Saver } from '../state/saver.svelte';
import { keepUndo, recallUndo } from '../state/undo-store';

/** Recipes are small: a step is kept as the whole of it. */
const WHOLE = {
  diff: (_from: Recipe, to: Recipe): Recipe => to,
  apply: (_from: Recipe, to: Recipe): Recipe => to,
};

/** The name that a measured pattern's numbers make, or that of the picture that a pattern is made from. */
export function automaticName(recipe: Recipe): string | null {
  if (recipe.kind === 'pictured') return recipe.pictured.source.name;
  if (recipe.kind !== 'measured') return null;
  return measuredName(recipe.measured, (px) => `${sayLength(px, recipe.measure, 2)} ${recipe.measure}`);
}

/** Whether a name is an automatic one, with a number where it was taken. */
const isNamedAfter = (name: string, automatic: string | null): boolean =>
  automatic !== null && name.replace(/ \(\d+\)$/, '') === automatic;

const UNKEPT = 'The draft is not saved yet; try again.';

const isUnnamed = (name: string): boolean => /^New pattern( \d+)?$/.test(name);

/** Keeps the pattern that is on the bench: its name, its draft, its revisions. What is done to the recipe is not its matter. */
export abstract class PatternKeeper {
  /** Whether whoever has it open may change it. */
  mayChange = true;
  readonly history: History<Recipe>;
  readonly saver: Saver<Recipe>;
  /** `null` until the first change of a new pattern is saved. */
  id: string | null = $state(null);
  name = $state('');
  /** Whether a person has typed the name; until then that of a measured pattern follows its numbers. */
  named = false;
  newest = $state(0);
  hasDraft = $state(false);
  uses = $state(0);
  projects = $state(0);
  /** Stock patterns are protected: work on one can only be kept as new. */
  stock = $state(false);
  /** The newest revision, to look back at. */
  published: Recipe | null = $state.raw(null);
  /** The present colours of palettes, where they changed since the recipe was loaded. */
  links: KnownLinks = $state.raw(new Map());
  readonly recipe = $derived.by(() => followRecipe(this.history.doc, this.links));
  /** Whether the bench shows anything else than what is published, by value. */
  readonly differs = $derived.by(() => {
    const follow = (recipe: Recipe): Recipe => followRecipe(recipe, this.links);
    // As long as a gesture lasts nothing is compared anew; colours that both follow are no difference.
    return !this.published || !sameValue(follow(this.history.settled), follow(this.published));
  });
  /** What keeps the recipe from being saved. */
  abstract readonly problems: readonly Problem[];

  constructor(pattern: PatternDetail | null, recipe: Recipe) {
    this.history = new History(
      recipe,
      onlyBy(() => this.mayChange, 'pattern'),
    );
    this.saver = new Saver(recipe, pattern?.version ?? 0, (next, _last, version) => this.save(next, version));
    this.name = pattern?.name ?? automaticName(recipe) ?? 'New pattern';
    this.named =
      pattern !== null &&
      !isUnnamed(this.name) &&
      !isNamedAfter(this.name, automaticName(pattern.recipe ?? recipe));
    this.take(pattern);
  }

  /** Keeps the steps for when this pattern is on the bench again in this tab, once all is saved. */
  keepUndo(): void {
    const keep = (): void => keepUndo(this.id ?? '', this.saver.version, this.history, WHOLE);
    if (this.id === null || this.stock) return;
    if (this.saver.clean) keep();
    else void this.saver.flush().then((saved) => saved && keep());
  }

  /** Brings the steps back that were kept in this tab; in the browser only. */
  recallUndo(): void {
    if (this.id !== null) recallUndo(this.id, this.saver.version, this.history, WHOLE);
  }

  /** Takes over what the server says of the pattern, but not its recipe. */
  private take(pattern: PatternDetail | null): void {
    this.id = pattern?.id ?? null;
    this.newest = pattern?.newest ?? 0;
    this.hasDraft = pattern?.hasDraft ?? false;
    this.uses = pattern?.uses ?? 0;
    this.stock = pattern?.stock ?? false;
    this.published = pattern?.recipe ?? null;
    this.projects = pattern?.projects ?? 0;
  }

  private async save(next: Recipe, version: number): Promise<Outcome<{ version: number }>> {
    const saved =
      this.id === null
        ? await this.create(next)
        : await call('PUT /patterns/{id}/draft', {
            id: this.id,
            body: {
              base: version,
              recipe: next,
            },
          });
    if (!saved.ok) return saved;
    this.hasDraft = true;
    return this.newest === 0 ? this.followName(next, saved.value.version) : saved;
  }

  /** Gives a pattern that nobody has named the name that its numbers make; answers the version after that. */
  private async followName(recipe: Recipe, version: number): Promise<Outcome<{ version: number }>> {
    const stem = automaticName(recipe);
    if (this.named || stem === null || isNamedAfter(this.name, stem)) return done({ version });
    const { id } = this;
    if (id === null) return done({ version });
    for (let number = 1; number < 50; number += 1) {
      const name = number === 1 ? stem : `${stem} (${number})`;
      const made = await call('PATCH /patterns/{id}', { id, body: { base: version, name } });
      if (made.ok) this.name = name;
      if (made.ok) return made;
      if (made.failure.code !== 'name_taken') break;
    }
    return done({ version });
  }

  /** The first save of a new pattern; a taken name gets a number. */
  private async create(recipe: Recipe): Promise<Outcome<{ version: number }>> {
    const stem = this.name;
    for (let number = 1; ; number += 1) {
      const name = number === 1 ? stem : automaticName(recipe) ? `${stem} (${number})` : `${stem} ${number}`;
      const made = await call('POST /patterns', { body: { name, recipe } });
      if (made.ok) {
        this.id = made.value.id;
        this.name = name;
        return made;
      }
      if (made.failure.code !== 'name_taken' || number > 200) return made;
    }
  }

  /** Renames the pattern as a person wants it; answers the problem, or null. */
  async rename(name: string): Promise<string | null> {
    if (this.id === null) {
      this.name = name;
      this.named = true;
      return null;
    }
    await this.saver.flush();
    const saved = await call('PATCH /patterns/{id}', {
      id: this.id,
      body: {
        base: this.saver.version,
        name,
      },
    });
    if (!saved.ok) return saved.failure.message;
    this.name = name;
    this.named = true;
    this.saver.version = saved.value.version;
    return null;
  }

  /** Makes sure that what is on the bench is kept as a draft; answers the problem, or null. */
  private async kept(): Promise<string | null> {
    if (this.problems[0]) return this.problems[0].message;
    if (this.id === null) {
      // A pattern from numbers may be right as it starts; it is saved all the same.
      const made = await this.create(this.recipe);
      if (!made.ok) return made.failure.message;
      this.hasDraft = true;
      this.saver.want(this.history.doc);
      this.saver.rebase(this.history.doc, made.value.version);
      return null;
    }
    if (await this.saver.flush()) return null;
    return this.saver.state.kind === 'failed' ? this.saver.state.message : UNKEPT;
  }

  /** What publishing would change; `null` where there is nothing to ask about, a sentence where it cannot be told. */
  async preview(): Promise<PublishPreview | string | null> {
    const problem = await this.kept();
    if (problem) return problem;
    if (this.id === null) return null;
    const found = await call('GET /patterns/{id}/uses', { id: this.id });
    if (!found.ok) return found.failure.message;
    return found.value.uses.some((use) => use.held === null) ? found.value : null;
  }

  /** Publishes what is on the bench as the next revision, some uses held; answers the problem, or null. */
  async publish(hold: string[] = []): Promise<string | null> {
    const problem = await this.kept();
    if (problem) return problem;
    if (this.id === null) return UNKEPT;
    const named = await this.followName(this.recipe, this.saver.version);
    if (named.ok) this.saver.version = named.value.version;
    const made = await call('POST /patterns/{id}/revisions', {
      id: this.id,
      body: {
        base: this.saver.version,
        hold,
      },
    });
    if (!made.ok) return made.failure.message;
    this.saver.version = made.value.version;
    this.newest = made.value.revision;
    this.published = this.recipe;
    this.hasDraft = false;
    return null;
  }

  /** Makes another pattern of what is on the bench; answers its id, or why not. */
  async keepAsNew(name: string): Promise<Outcome<{ id: string }>> {
    if (this.problems[0]) return fail('invalid', this.problems[0].message);
    if (!this.stock) await this.saver.flush();
    if (this.id === null) return fail('internal', UNKEPT);
    return call('POST /patterns/{id}/copies', {
      id: this.id,
      body: {
        name,
        recipe: this.recipe,
        takesDraft: this.hasDraft,
      },
    });
  }
}
