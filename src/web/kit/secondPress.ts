/** What a hand presses; a label stands for its field. */
const PRESSED = 'button, a, input, summary, [role="button"], [role="option"]';

function pressedAt({ target }: MouseEvent): Element | null {
  if (!(target instanceof Element)) return null;
  return target.closest('label')?.control ?? target.closest(PRESSED);
}

/**
 * Drops the second press of a double click where it falls on another thing than the first: a list has moved up under the hand,
 * and what came there nobody meant. Returns what ends it.
 */
export function dropStraySecondPresses(): () => void {
  let first: Element | null = null;
  const heard = (event: MouseEvent): void => {
    const pressed = pressedAt(event);
    if (event.detail < 2) first = pressed;
    else if (pressed !== null && pressed !== first) {
      event.preventDefault();
      event.stopImmediatePropagation();
    }
  };
  document.addEventListener('click', heard, true);
  return () => document.removeEventListener('click', heard, true);
}
