/** Choices of a form carry this class; the keys below pick them in their order while the focus is in the form. */
export const CHOICE = 'wl-choice';

/** Keys of the choices of a form, in order: letters that are no shortcut anywhere. */
export const CHOICE_KEYS = 'qwertysdfghjzxcvb';

const KEYS_OF = [...CHOICE_KEYS];

function shownIn(form: HTMLFormElement): HTMLInputElement[] {
  return [...form.querySelectorAll<HTMLInputElement>(`.${CHOICE} input`)].filter(
    (input) => input.offsetParent !== null && !input.disabled,
  );
}

/** Where a hand goes on after one choice: to the first question of the form not answered yet, or else to its button. */
function nextOf(form: HTMLFormElement, picked: HTMLInputElement): HTMLElement | null {
  const after = [
    ...form.querySelectorAll<HTMLInputElement | HTMLButtonElement>('input, select, [type="submit"]'),
  ].filter(
    (field) =>
      field.offsetParent !== null &&
      !field.disabled &&
      (picked.compareDocumentPosition(field) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
  );
  const isOpen = (field: HTMLInputElement | HTMLButtonElement): boolean => {
    if (field.type === 'submit') return true;
    if (field.type === 'radio')
      return (
        field.name !== picked.name &&
        form.querySelector(`input[type="radio"][name="${CSS.escape(field.name)}"]:checked`) === null
      );
    return field.type !== 'checkbox' && field.dataset.wanted === 'true' && field.value === '';
  };
  return after.find(isOpen) ?? null;
}

/** Picks the choice that has this key in the form the focus is in; false where there is none. */
export function pickChoice(key: string): boolean {
  const form = document.activeElement?.closest('form');
  const input = form ? shownIn(form)[KEYS_OF.indexOf(key)] : undefined;
  if (!form || !input || !KEYS_OF.includes(key)) return false;
  input.click();
  input.focus();
  // What is asked next may come only with this answer.
  if (input.type === 'radio')
    requestAnimationFrame(() =>
      requestAnimationFrame(() => {
        // Unless a hand went elsewhere meanwhile.
        if (document.activeElement === input) nextOf(form, input)?.focus();
      }),
    );
  return true;
}
