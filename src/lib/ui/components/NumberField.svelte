<script lang="ts">
  import { clamp } from '$lib/core/num/tolerance';
  import { fromPx, toPx } from '$lib/core/num/length';
  import { readQuantity, readRelative, type QuantityKind } from '$lib/core/num/quantity';
  import { inRun } from '../state/run';
  import { settledField } from '../state/undo-keys';
  import { wheelSteps } from './wheel';

  /**
   * A number edited in place: drag across it, press it and turn the wheel, arrow keys (Shift: 10, Alt: 0.1), or type,
   * with sums and units. A length is held in px and shown in `kind.unit`; a `%` is held as a factor. `onlive` shows a value
   * during a drag, `onset` makes it one step; `oncancel` ends a drag without one.
   */
  type Props = {
    value: number;
    kind: QuantityKind;
    label: string;
    least?: number;
    most?: number;
    digits?: number;
    hideUnit?: boolean;
    disabled?: boolean;
    mixed?: boolean;
    /** Writes the value for showing, where decimals are not what people read: a step as 1/3. */
    show?: (value: number) => string;
    id?: string;
    onlive?: (value: number) => void;
    onset: (value: number) => void;
    oncancel?: () => void;
    /** Takes a typed change such as +10 or *1.5, which each of several values is put through. */
    onrelative?: (change: (held: number) => number) => void;
  };
  let {
    value,
    kind,
    label,
    least = -Infinity,
    most = Infinity,
    digits,
    hideUnit = false,
    disabled = false,
    mixed = false,
    show,
    id,
    onlive,
    onset,
    oncancel,
    onrelative,
  }: Props = $props();

  const isPercent = $derived('suffix' in kind && kind.suffix === '%');
  const unitText = $derived('unit' in kind ? kind.unit : kind.suffix);
  const places = $derived(digits ?? ('unit' in kind ? (kind.unit === 'in' ? 3 : 2) : 2));

  /** Notches and arrow presses on this field that follow each other are one step. */
  const run = $props.id();
  const PROBLEM_WIDTH = 260;
  let typed: string | null = $state(null);
  let problem: string | null = $state(null);
  let field: HTMLSpanElement | undefined = $state();
  /** Where the problem's sentence stands on the window, so that no panel's edge can cut it. */
  const place = $derived.by(() => {
    const box = problem === null ? undefined : field?.getBoundingClientRect();
    if (!box) return null;
    const left = Math.max(8, Math.min(box.left - 8, window.innerWidth - PROBLEM_WIDTH - 8));
    return { left, bottom: window.innerHeight - box.top + 6 };
  });
  let scrub: { x: number; start: number; moved: boolean } | null = $state(null);

  const shown = $derived(
    mixed ? 'mixed' : show ? show(value) : String(Number(toShown(value).toFixed(places))),
  );

  function toShown(held: number): number {
    return 'unit' in kind ? fromPx(held, kind.unit) : isPercent ? held * 100 : held;
  }
  function toHeld(shownValue: number): number {
    return 'unit' in kind ? toPx(shownValue, kind.unit) : isPercent ? shownValue / 100 : shownValue;
  }

  function stepBy(count: number, event: { shiftKey: boolean; altKey: boolean }): number {
    const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const next = Number((toShown(value) + count * size).toFixed(6));
    return clamp(toHeld(next), least, most);
  }

  function accept(text: string): boolean {
    if (text.trim() === shown || (mixed && text.trim() === 'mixed')) return true;
    const relative = onrelative ? readRelative(text, kind) : null;
    if (relative && onrelative) {
      const by = relative.by === 'sum' ? toHeld(relative.value) : relative.value;
      onrelative((held) => clamp(relative.by === 'sum' ? held + by : held * by, least, most));
      return true;
    }
    const read = readQuantity(text, kind);
    if (!read.ok) {
      problem = read.message;
      return false;
    }
    const held = toHeld(read.value);
    if (held < least - 1e-9 || held > most + 1e-9) {
      const say = (limit: number): string => `${Number(toShown(limit).toFixed(3))} ${unitText}`.trim();
      problem =
        held < least
          ? `${label} must be at least ${say(least)}; ${say(held)} was given.`
          : `${label} must be at most ${say(most)}; ${say(held)} was given.`;
      return false;
    }
    onset(held);
    return true;
  }

  function leave(): void {
    if (typed !== null && accept(typed)) problem = null;
    if (problem === null) typed = null;
  }

  function onkeydown(event: KeyboardEvent & { currentTarget: HTMLInputElement }): void {
    if (event.key === 'Enter') {
      const taken = typed === null || accept(typed);
      if (taken) {
        typed = null;
        problem = null;
        event.currentTarget.select();
      }
      // In a dialog Enter then does what the dialog is there for.
      if (!taken || !event.currentTarget.closest('dialog')) event.preventDefault();
    } else if (event.key === 'Escape') {
      // Where there is nothing to give up, Escape is for the panel that the field stands in.
      const idle = typed === null && problem === null && !scrub;
      if (idle && event.currentTarget.closest('[role="dialog"]')) return;
      typed = null;
      problem = null;
      if (scrub) {
        scrub = null;
        oncancel?.();
      }
      event.currentTarget.blur();
      event.stopPropagation();
      // A dialog that the field stands in stays.
      if (!idle) event.preventDefault();
    } else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      typed = null;
      problem = null;
      inRun(run, () => onset(stepBy(event.key === 'ArrowUp' ? 1 : -1, event)));
      event.preventDefault();
    }
  }

  function onpointerdown(event: PointerEvent & { currentTarget: HTMLInputElement }): void {
    if (disabled || event.button !== 0 || document.activeElement === event.currentTarget) return;
    scrub = { x: event.clientX, start: toShown(value), moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
  }
  function onpointermove(event: PointerEvent): void {
    if (!scrub) return;
    const by = event.clientX - scrub.x;
    if (!scrub.moved && Math.abs(by) < 3) return;
    scrub.moved = true;
    const size = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    const next = clamp(toHeld(Number((scrub.start + Math.round(by / 2) * size).toFixed(6))), least, most);
    (onlive ?? onset)(next);
  }
  function onpointerup(event: PointerEvent & { currentTarget: HTMLInputElement }): void {
    if (!scrub) return;
    const { moved } = scrub;
    scrub = null;
    if (moved) {
      onset(value);
      event.currentTarget.blur();
    } else {
      event.currentTarget.focus();
      event.currentTarget.select();
    }
  }
</script>

<span bind:this={field} class="field" class:disabled>
  <input
    {id}
    type="text"
    inputmode="decimal"
    autocomplete="off"
    spellcheck="false"
    style:--letters={Math.max(1, (typed ?? shown).length) + 0.15}
    value={typed ?? shown}
    aria-label={label}
    aria-invalid={problem !== null}
    {disabled}
    title={disabled ? undefined : 'Drag, or press it and type, turn the wheel or use the arrow keys'}
    {...settledField(typed)}
    oninput={(event) => {
      const { value: text } = event.currentTarget;
      typed = text === shown ? null : text;
    }}
    onfocus={(event) => event.currentTarget.select()}
    onblur={leave}
    {onkeydown}
    onmousedown={(event) => document.activeElement !== event.currentTarget && event.preventDefault()}
    {onpointerdown}
    {onpointermove}
    {onpointerup}
    onpointercancel={() => {
      if (scrub?.moved) oncancel?.();
      scrub = null;
    }}
    {@attach wheelSteps((count, event) => !disabled && inRun(run, () => onset(stepBy(count, event))))}
  />{#if unitText && !hideUnit && !mixed}<span class="unit" class:tight={unitText === '°'}>{unitText}</span
    >{/if}
  {#if problem && place}<span
      class="problem"
      role="alert"
      style:left="{place.left}px"
      style:bottom="{place.bottom}px"
      style:max-width="{PROBLEM_WIDTH}px">{problem}</span
    >{/if}
</span>

<style>
  .field {
    position: relative;
    display: inline-flex;
    align-items: baseline;
    gap: 4px;
    font-family: var(--mono);
    font-size: 13px;
    font-weight: 500;
  }
  input {
    --wide: calc(var(--letters) * 1ch);
    box-sizing: border-box;
    /* A target of 24 px (WCAG 2.2, 2.5.8) also for one digit: it reaches below its unit, and its line does not. */
    width: max(24px, var(--wide));
    height: 24px;
    margin-right: min(0px, calc(var(--wide) - 24px));
    padding: 1px 0;
    border: 0;
    border-radius: 0;
    background: repeating-linear-gradient(90deg, var(--rule-strong) 0 1px, transparent 1px 3px) 0
      calc(100% - 1px) / var(--wide) 1px no-repeat;
    cursor: ew-resize;
    touch-action: none;
  }
  input:focus {
    cursor: text;
    background-image: linear-gradient(var(--kelp), var(--kelp));
    outline-offset: 3px;
  }
  input[aria-invalid='true'] {
    background-image: linear-gradient(var(--amber), var(--amber));
  }
  input:disabled {
    background-image: none;
    cursor: default;
    color: var(--muted);
  }
  .unit {
    color: var(--muted);
    pointer-events: none;
  }
  .unit.tight {
    margin-left: -4px;
  }
  .problem {
    position: fixed;
    z-index: 60;
    width: max-content;
    padding: 6px 10px;
    border: 1px solid var(--amber);
    border-radius: var(--radius);
    background: var(--amber-tint);
    color: var(--ink);
    font: 12px/1.4 var(--sans);
    white-space: normal;
  }
</style>
