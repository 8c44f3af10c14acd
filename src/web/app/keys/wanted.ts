/** Fields on the mat say with `data-wanted` that their fact is still asked for, and with `data-measure` that a device may fill them. */
type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

const NO_TEXT = new Set(['checkbox', 'radio', 'button', 'submit', 'reset']);

/** Whether keys typed here are text, so that they are not shortcuts. */
export function isField(target: EventTarget | null): target is Field {
  if (target instanceof HTMLInputElement) return !NO_TEXT.has(target.type);
  return target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement;
}

function wantedFields(): HTMLElement[] {
  return [...document.querySelectorAll<HTMLElement>('#mat [data-wanted="true"]')].filter(
    (element) => element.offsetParent !== null && !element.matches(':disabled'),
  );
}

/** Puts the focus on the next thing still wanted on the mat. */
export function focusNextWanted(): boolean {
  const fields = wantedFields();
  const at = fields.findIndex((field) => field === document.activeElement);
  const next = fields[(at + 1) % fields.length];
  next?.focus();
  if (next instanceof HTMLInputElement && isField(next)) next.select();
  return next !== undefined;
}

/** Puts text into a field the way typing would, so that its form takes notice. */
export function setFieldValue(field: HTMLInputElement | HTMLTextAreaElement, value: string): void {
  const prototype =
    field instanceof HTMLTextAreaElement ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  Object.getOwnPropertyDescriptor(prototype, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** Types a device's figure into the next measure wanted and leaves the focus there. */
export function giveToNextMeasure(text: string): boolean {
  const field = wantedFields().find((element) => element.dataset.measure === 'true');
  if (!(field instanceof HTMLInputElement)) return false;
  field.focus();
  setFieldValue(field, text);
  return true;
}
