import { HOLDER_WAYS } from './holders';
import { HOLD_KINDS } from '../movements';
describe('what every kind is told', () => {
  it('has a caution for each way a cell is held, and none of them shouts', () => {
    for (const hold of HOLD_KINDS) {
      const { danger, dangerAt, out, in: into } = HOLDER_WAYS[hold];
      expect(danger).toMatch(/^[^!]{30,}$/);
      expect([...out, ...into].map(({ id }) => id)).toEqual(expect.arrayContaining([...dangerAt]));
    }
  });
});
