import { readTicket } from '../../../core/craft/tickets';
import { BurstReader, settleMs } from './burst';
import { pickChoice } from './choices';
import { type Field, handMoved, isField, isFigure, isStrayEnter, setFieldValue, wants } from './required';

export type TextField = HTMLInputElement | HTMLTextAreaElement;

export function dialogOpen(): boolean {
  return document.querySelector('[role="dialog"]') !== null;
}

/** Whether keys were pressed that the page has not been given yet, where the browser can tell. */
function keysPending(): boolean {
  const { scheduling } = navigator as Navigator & {
    readonly scheduling?: { readonly isInputPending?: () => boolean };
  };
  return scheduling?.isInputPending?.() ?? false;
}

/** What is done with what is heard. */
export interface KeyActions {
  /** Takes what a device typed; the field is the one somebody was in. */
  readonly takeFromDevice: (text: string, field?: TextField | null) => void;
  /** Whether the view that stands would make something of it. */
  readonly isScan: (text: string) => boolean;
  /** A single key of a hand. */
  readonly press: (key: string) => void;
  readonly singleKeys: () => boolean;
}

/**
 * Listens to the keyboard as a whole for as long as the page lives: set up anew in the middle of a burst it would lose keys.
 * Gives the way to end it.
 */
export function listenToKeys({ takeFromDevice, isScan, press, singleKeys }: KeyActions): () => void {
  const reader = new BurstReader();
  let settle: ReturnType<typeof setTimeout> | undefined;
  /** Whether the run that is not over yet was typed into a field. */
  let runInField = false;
  let fieldBefore: { field: TextField; value: string } | null = null;

  const act = (runs: ReturnType<BurstReader['end']>, inField: boolean): void => {
    for (const run of runs) {
      if (inField) continue;
      if (run.from === 'device') takeFromDevice(run.text);
      else if (singleKeys() && !dialogOpen() && !pickChoice(run.key)) {
        press(run.key);
      }
    }
  };
  /** A run that ends by Enter: of a device, or what a hand pressed last. */
  const onEnter = (event: KeyboardEvent, field: Field | null): void => {
    clearTimeout(settle);
    const wasDevice = reader.looksLikeDevice;
    const runs = reader.end();
    const run = runs[0];
    if (wasDevice && run?.from === 'device') {
      const ticket = readTicket(run.text);
      // A measure that is filled in already is not written on: the figure is for the next one.
      const behind = field?.dataset.measure !== undefined && field.value !== run.text;
      const lost = field !== null && isFigure(run.text) && !wants(field, run.text);
      if (!field || behind || lost || ticket.verdict !== 'not a ticket' || isScan(run.text)) {
        event.preventDefault();
        event.stopPropagation();
        if (field && fieldBefore?.field === field) setFieldValue(field, fieldBefore.value);
        takeFromDevice(run.text, lost && fieldBefore ? fieldBefore.field : null);
      }
    } else act(runs, runInField);
  };
  /** A key that writes something. */
  const onCharacter = (event: KeyboardEvent, field: Field | null): void => {
    clearTimeout(settle);
    const inField = field !== null;
    const earlier = reader.press(event.key, event.timeStamp);
    act(earlier, runInField);
    runInField = inField;
    if (earlier.length > 0 || !reader.looksLikeDevice) {
      fieldBefore =
        field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement
          ? { field, value: field.value }
          : null;
    }
    // A space in the middle of what a device types would press the button that has the focus.
    if (!field && (event.key === '/' || (event.key === ' ' && reader.looksLikeDevice)))
      event.preventDefault();
    // In a field no key is a shortcut: the run ends by the times of its keys alone, however late they are handed over.
    if (inField) return;
    const wait = settleMs(event.key, reader.looksLikeDevice);
    const silent = (): void => {
      // Keys that were pressed in time may lie behind what keeps the page busy.
      if (keysPending()) settle = setTimeout(silent, wait);
      else act(reader.settle(), false);
    };
    settle = setTimeout(silent, wait);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    // A key held down repeats as fast as a device types, and a composed letter is not finished yet.
    if (event.isComposing) return;
    // Held down, or pressed once too often: an Enter that still comes once the focus has gone on decides nothing there.
    if (event.key === 'Enter' && (event.repeat || isStrayEnter()) && !dialogOpen()) {
      reader.end();
      event.preventDefault();
      event.stopPropagation();
      return;
    }
    if (event.repeat) return;
    if (event.key !== 'Enter') handMoved();
    const field = isField(event.target) ? event.target : null;
    if (event.key === 'Escape' && field && !dialogOpen()) {
      field.blur();
      return;
    }
    if (event.key === 'Enter') return onEnter(event, field);
    if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
    onCharacter(event, field);
  };
  window.addEventListener('keydown', onKeyDown, true);
  window.addEventListener('pointerdown', handMoved, true);
  return () => {
    window.removeEventListener('pointerdown', handMoved, true);
    window.removeEventListener('keydown', onKeyDown, true);
    clearTimeout(settle);
  };
}
