/**
 * An attachment that turns wheel movement over an element into whole steps, up positive. It listens actively, since
 * the page must not scroll meanwhile, and only while the pointer has rested on the element or it has the focus.
 */
export function wheelSteps(
  step: (count: number, event: WheelEvent) => void,
): (node: HTMLElement) => () => void {
  return (node) => {
    let rest = 0;
    const turn = (event: WheelEvent): void => {
      if (event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      rest += (event.deltaY || event.deltaX) / (event.deltaMode === 0 ? 50 : 1);
      const whole = Math.trunc(rest);
      if (whole === 0) return;
      rest -= whole;
      step(-whole, event);
    };
    node.addEventListener('wheel', turn, { passive: false });
    return () => node.removeEventListener('wheel', turn);
  };
}
