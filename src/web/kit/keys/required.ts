import { type Quantity, readQuantity } from '../../../core/craft/units';

/**
 * Fields on the mat say with `data-wanted` that their fact is still asked for, and with `data-measure` which quantity a
 * device may fill in.
 */
export type Field = HTMLInputElement | HTMLTextAreaElement | HTMLSelectElement;

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

/** Where the focus came by itself, until the next key, and when. */
let landedOn: Element | null = null;
let landedAtMs = 0;
/** Before that nobody has seen where the focus came to. */
const SEEN_AFTER_MS = 500;

function landed(): void {
  landedOn = document.activeElement;
  landedAtMs = performance.now();
}

/** Something was recorded, and what is asked next is not drawn yet. */
let goesOn = false;

/**
 * Whether an Enter is meant for what went before: pressed where the focus came by itself, sooner than a hand can have seen it
 * there, with no other key since. It is answered once: a hand that presses again means it. What only leads on records nothing.
 */
export function isStrayEnter(): boolean {
  const stray =
    landedOn !== null &&
    landedOn === document.activeElement &&
    !(landedOn instanceof HTMLAnchorElement) &&
    performance.now() - landedAtMs < SEEN_AFTER_MS;
  landedOn = null;
  return stray;
}

/** A key or a press of the hand: what the focus is on now was chosen. */
export function handMoved(): void {
  landedOn = null;
  goesOn = false;
}

/**
 * What is asked next, drawn only now: the focus comes to it where something was recorded and no hand has moved since. So it does
 * where the focus had come to something by itself that is gone again, as what is worked out beside the page comes late.
 */
export function focusElement(element: HTMLElement | null): void {
  const lost = landedOn !== null && !landedOn.isConnected;
  if (!(goesOn || lost) || element === null || document.activeElement !== document.body) return;
  goesOn = false;
  element.focus();
  landed();
}

/** Puts the focus on the next thing still wanted on the mat. */
export function focusNextRequired(): boolean {
  const fields = wantedFields();
  const at = fields.findIndex((field) => field === document.activeElement);
  const next = fields[(at + 1) % fields.length];
  next?.focus();
  if (next instanceof HTMLInputElement && isField(next)) next.select();
  return next !== undefined;
}

/**
 * The same once what was just recorded or opened is drawn, two frames on: a card has turned from form to line by then. Where
 * frames come late a hand may have gone into another field meanwhile: it stays there.
 */
export function focusRequired(): void {
  const hand = document.activeElement;
  const goOn = (): void => {
    const now = document.activeElement;
    if (now !== hand && isField(now)) return;
    if (focusNextRequired()) landed();
    else goesOn = true;
  };
  requestAnimationFrame(() => requestAnimationFrame(goOn));
}

/** Puts text into a field the way typing would, so that its form takes notice. */
export function setFieldValue(field: HTMLInputElement | HTMLTextAreaElement, value: string): void {
  const prototype =
    field instanceof HTMLTextAreaElement ? HTMLTextAreaElement.prototype : HTMLInputElement.prototype;
  Object.getOwnPropertyDescriptor(prototype, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/**
 * Types a device's figure into the next measure wanted and leaves the focus there: the first still empty among those
 * that can be so measured, since a caliper counts no notches.
 */
export function giveToNextMeasure(text: string): boolean {
  const fields = wantedFields().filter(
    (element): element is HTMLInputElement =>
      element instanceof HTMLInputElement &&
      element.dataset.measure !== undefined &&
      readQuantity(text, element.dataset.measure as Quantity).verdict === 'read',
  );
  const field = fields.find((each) => each.value.trim() === '') ?? fields[0];
  if (!field) return false;
  field.focus();
  setFieldValue(field, text);
  return true;
}

/** What a caliper or a meter sends: a number with decimals or with its unit, never a code of digits and letters. */
const FIGURE = /^[+-]?(\d*[.,]\d+|\d+\s*(mm|cm|V|mV|mA|[uµ]A|nA|[kM]?Ω|bar|s|g))\s*[a-zA-Zµ°Ω"]{0,4}$/;

export function isFigure(text: string): boolean {
  return FIGURE.test(text.trim());
}

/** Whether a field takes a figure of this quantity. */
export function wants(field: Field, text: string): boolean {
  const { measure } = field.dataset;
  return measure !== undefined && readQuantity(text, measure as Quantity).verdict === 'read';
}
