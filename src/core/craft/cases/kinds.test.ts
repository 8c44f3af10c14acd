import { BACK_KINDS, backs } from './kinds';

it('has an opener, one caution with its reason, and a way of closing for each kind of back', () => {
  for (const kind of BACK_KINDS) {
    expect(backs[kind].opener).toBeTruthy();
    expect(backs[kind].caution.length).toBeGreaterThan(30);
    expect(backs[kind].closes.length).toBeGreaterThan(0);
  }
});
