import { figure, percent } from './judgement';
describe('time and figures', () => {
  it('writes figures plainly and claims no certainty', () => {
    expect([figure(1.1), figure(-0.001), figure(20), figure(0.125, 3), figure(-2.5)]).toEqual([
      '1.1',
      '0',
      '20',
      '0.125',
      '−2.5',
    ]);
    expect([percent(0.9999), percent(0.0001), percent(0.4321)]).toEqual(['over 99 %', 'under 1 %', '43.2 %']);
  });
});
