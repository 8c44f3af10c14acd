/** @jest-environment jsdom */
import {
  focusElement,
  focusNextRequired,
  focusRequired,
  giveToNextMeasure,
  handMoved,
  isFigure,
  isStrayEnter,
} from './required';

/** Two frames and a little. */
const drawn = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 60));
const field = (name: string): HTMLInputElement => {
  const found = document.querySelector<HTMLInputElement>(`[name="${name}"]`);
  if (!found) throw new Error(name);
  return found;
};

beforeAll(() => {
  // Nothing is laid out here: what is in the page counts as shown, unless it is hidden.
  Object.defineProperty(HTMLElement.prototype, 'offsetParent', {
    get(this: HTMLElement) {
      return this.hidden ? null : this.parentElement;
    },
  });
});
beforeEach(() => {
  document.body.innerHTML = `
    <div id="mat">
      <input name="settled" />
      <input name="first" data-wanted="true" data-measure="lengthMm" value="12.0" />
      <input name="folded" data-wanted="true" hidden />
      <input name="off" data-wanted="true" disabled />
      <input name="count" data-wanted="true" />
      <input name="second" data-wanted="true" data-measure="lengthMm" />
      <input name="volts" data-wanted="true" data-measure="voltageV" />
    </div>
    <input name="elsewhere" data-wanted="true" />`;
  handMoved();
});

it('goes from one thing still wanted to the next, past what is hidden or cannot be answered, and round', () => {
  const way = Array.from({ length: 5 }, () => {
    focusNextRequired();
    return (document.activeElement as HTMLInputElement).name;
  });
  expect(way).toEqual(['first', 'count', 'second', 'volts', 'first']);
});

it('where nothing is wanted any more the hand is left where it was', () => {
  document.querySelectorAll<HTMLElement>('#mat [data-wanted]').forEach((each) => each.remove());
  field('settled').focus();
  expect(focusNextRequired()).toBe(false);
  expect(document.activeElement).toBe(field('settled'));
});

it('an Enter sooner than a hand can see where the focus came to is dropped, once', async () => {
  focusRequired();
  await drawn();
  expect(document.activeElement).toBe(field('first'));
  expect(isStrayEnter()).toBe(true);
  expect(isStrayEnter()).toBe(false);
});

it('an Enter is meant where the hand moved since, and where it had time to see', async () => {
  focusRequired();
  await drawn();
  handMoved();
  expect(isStrayEnter()).toBe(false);
  focusRequired();
  await drawn();
  await new Promise((resolve) => setTimeout(resolve, 500));
  expect(isStrayEnter()).toBe(false);
});

it('a hand that goes into another field meanwhile stays there', async () => {
  focusRequired();
  field('settled').focus();
  await drawn();
  expect(document.activeElement).toBe(field('settled'));
});

it('what is asked only later gets the focus when it comes, unless a hand has moved', async () => {
  document.querySelectorAll('#mat [data-wanted]').forEach((each) => each.remove());
  focusRequired();
  await drawn();
  focusElement(field('settled'));
  expect(document.activeElement).toBe(field('settled'));
  field('settled').blur();
  focusElement(field('settled'));
  expect(document.activeElement).toBe(document.body);
});

it('a figure goes to the first empty field of its quantity, never over another or into a count', () => {
  const heard: string[] = [];
  document.addEventListener('input', ({ target }) => heard.push((target as HTMLInputElement).name));
  expect(giveToNextMeasure('14.20 mm')).toBe(true);
  expect(field('second').value).toBe('14.20 mm');
  expect(field('first').value).toBe('12.0');
  expect(giveToNextMeasure('1.55 V')).toBe(true);
  expect(field('volts').value).toBe('1.55 V');
  expect(heard).toEqual(['second', 'volts']);
  expect(giveToNextMeasure('3 bar')).toBe(false);
});

it.each([
  ['+0014.20', true],
  ['14,2 mm', true],
  ['.5', true],
  ['12 mV', true],
  ['1420', false],
  ['SR621SW', false],
  ['T0042-3', false],
  ['14.20 mm of it', false],
])('whether %s is a figure: %s', (text, expected) => expect(isFigure(text)).toBe(expected));
