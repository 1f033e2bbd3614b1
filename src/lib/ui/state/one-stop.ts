/**
 * An attachment for a bar of tools: all its buttons are one stop of Tab, and the arrow keys, Home and End go from one to the
 * next (WAI-ARIA Authoring Practices, toolbar). Fields among the buttons keep stops of their own. The stop is where the
 * keyboard was last, else the tool that holds, else the first.
 */
export function oneStop(node: HTMLElement): () => void {
  let last: HTMLElement | null = null;
  const buttons = (): HTMLButtonElement[] =>
    [...node.querySelectorAll<HTMLButtonElement>(':scope > button, :scope > .popover > .trigger')].filter(
      (button) => !button.disabled,
    );
  const mark = (): void => {
    const all = buttons();
    const stop =
      all.find((button) => button === last) ??
      all.find((button) => button.getAttribute('aria-pressed') === 'true') ??
      all[0];
    for (const button of all) {
      const wanted = button === stop ? 0 : -1;
      if (button.tabIndex !== wanted) button.tabIndex = wanted;
    }
  };
  const onfocusin = (event: FocusEvent): void => {
    const held = buttons().find((button) => button === event.target);
    if (!held) return;
    last = held;
    mark();
  };
  const onkeydown = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const all = buttons();
    const at = all.findIndex((button) => button === event.target);
    if (at < 0) return;
    const to: Record<string, number> = {
      ArrowRight: at + 1,
      ArrowLeft: at - 1 + all.length,
      Home: 0,
      End: all.length - 1,
    };
    const next = to[event.key];
    if (next === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    all[next % all.length]?.focus();
  };
  const watch = new MutationObserver(mark);
  watch.observe(node, { childList: true, subtree: true, attributeFilter: ['disabled', 'aria-pressed'] });
  node.addEventListener('focusin', onfocusin);
  node.addEventListener('keydown', onkeydown);
  mark();
  return () => {
    watch.disconnect();
    node.removeEventListener('focusin', onfocusin);
    node.removeEventListener('keydown', onkeydown);
  };
}
