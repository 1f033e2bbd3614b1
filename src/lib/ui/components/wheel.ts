/**
 * An attachment that turns wheel movement over a field into whole steps, up positive, while the field has the focus;
 * over any other the page scrolls. It listens actively, since the page must not scroll meanwhile.
 */
export function wheelSteps(
  step: (count: number, event: WheelEvent) => void,
): (node: HTMLElement) => () => void {
  return (node) => {
    let rest = 0;
    const turn = (event: WheelEvent): void => {
      if (event.ctrlKey || event.metaKey || document.activeElement !== node) return;
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
