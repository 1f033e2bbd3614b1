<script lang="ts" generics="Part extends string">
  import type { Room } from '../state/room.svelte';

  /** The edge between a stage and a part beside it: dragged, or moved by the arrow keys, it gives the part another size. */
  type Props = {
    room: Room<Part>;
    part: Part;
    /** What the part is called: "hangers". */
    name: string;
    /** On which side of the edge the part lies. */
    side: 'left' | 'right' | 'below';
    /** The height or width that the part has now, where that is its own choice. */
    measured?: number;
  };
  let { room, part, name, side, measured }: Props = $props();

  const STEP = 16;
  const limits = $derived(room.limits(part));
  const now = $derived(
    room.isFolded(part) ? 0 : room.isSized(part) ? room.size(part) : (measured ?? room.size(part)),
  );
  function pull(event: PointerEvent & { currentTarget: HTMLElement }): void {
    if (event.button !== 0) return;
    event.preventDefault();
    const { currentTarget, pointerId } = event;
    currentTarget.focus();
    currentTarget.setPointerCapture(pointerId);
    room.pulled = part;
    const start = { size: now, at: side === 'below' ? event.clientY : event.clientX };
    const move = (next: PointerEvent): void => {
      const by = (side === 'below' ? next.clientY : next.clientX) - start.at;
      room.resize(part, start.size + (side === 'left' ? by : -by));
    };
    const end = (): void => {
      room.pulled = null;
      currentTarget.removeEventListener('pointermove', move);
      currentTarget.removeEventListener('lostpointercapture', end);
    };
    currentTarget.addEventListener('pointermove', move);
    currentTarget.addEventListener('lostpointercapture', end);
  }
  function onkeydown(event: KeyboardEvent): void {
    const [more, less] = {
      left: ['ArrowRight', 'ArrowLeft'] as const,
      right: ['ArrowLeft', 'ArrowRight'] as const,
      below: ['ArrowUp', 'ArrowDown'] as const,
    }[side];
    const actions: Record<string, () => void> = {
      [more]: () => room.resize(part, Math.max(limits.least, now + STEP)),
      [less]: () => room.resize(part, Math.max(limits.least, now - STEP)),
      Home: () => room.resize(part, limits.least),
      End: () => room.resize(part, limits.most),
      Enter: () => room.fold(part),
    };
    const action = actions[event.key];
    if (!action || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    action();
  }
</script>

<!-- A separator that can be moved is a control of its own (WAI-ARIA 1.2, separator). -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
<div
  class="sizer {side}"
  class:pulled={room.pulled === part}
  role="separator"
  tabindex="0"
  aria-orientation={side === 'below' ? 'horizontal' : 'vertical'}
  aria-label="Size of the {name}"
  aria-valuenow={now}
  aria-valuemin={0}
  aria-valuemax={limits.most}
  title="Drag, or use the arrow keys, for more or less room; Enter folds the {name}; a double press gives the usual size"
  onpointerdown={pull}
  ondblclick={() => room.asUsual(part)}
  {onkeydown}
></div>

<style>
  .sizer {
    position: relative;
    flex: none;
    z-index: 4;
    background: var(--rule);
    touch-action: none;
  }
  .left,
  .right {
    width: 5px;
    cursor: ew-resize;
  }
  .below {
    height: 5px;
    cursor: ns-resize;
  }
  /* The edge is thin; what can be caught of it is not. */
  .sizer::after {
    content: '';
    position: absolute;
    inset: -4px 0;
  }
  .left::after,
  .right::after {
    inset: 0 -4px;
  }
  .sizer:hover,
  .pulled {
    background: var(--kelp);
  }
  .sizer:focus-visible {
    outline: 2px solid var(--kelp);
    outline-offset: 1px;
  }
</style>
