import { urlOf } from '../state/api';
import { sortedStops } from '$lib/core/recipe/gradient';
import type { Fill } from '$lib/core/recipe/fill';
import type { LayoutEditor } from './editor.svelte';

/** What a fill is, in a word or two. */
export function sayFill(fill: Fill, editor: LayoutEditor): string {
  switch (fill.kind) {
    case 'colour':
      return fill.colour;
    case 'gradient':
      return fill.gradient.kind === 'radial' ? 'round gradient' : 'gradient';
    case 'picture':
      return `picture ${fill.width} × ${fill.height} px`;
    case 'layout':
      return `layout “${editor.pages.get(fill.layout)?.name ?? 'that is gone'}”`;
    case 'pattern':
      return editor.patterns.get(fill.pattern)?.name ?? 'a pattern that is gone';
  }
}

/** A CSS background that stands for a fill in a small place. */
export function inkCss(fill: Fill, editor: LayoutEditor): string {
  switch (fill.kind) {
    case 'colour':
      return fill.colour;
    case 'gradient':
      return `linear-gradient(to right, ${sortedStops(fill.gradient)
        .map(({ at, colour }) => `${colour} ${at * 100}%`)
        .join(', ')})`;
    case 'picture':
      return `url("${urlOf('GET /motifs/{hash}', { hash: fill.asset })}") center / cover`;
    case 'layout': {
      const page = editor.pages.get(fill.layout);
      return page?.background ?? '#ffffff';
    }
    case 'pattern': {
      const colours = Object.values(editor.tintsOf(fill)).map(({ colour }) => colour);
      const step = 100 / Math.max(1, colours.length);
      const bands = colours.map((colour, index) => `${colour} ${index * step}% ${(index + 1) * step}%`);
      return bands.length === 0 ? '#ffffff' : `linear-gradient(135deg, ${bands.join(', ')})`;
    }
  }
}
