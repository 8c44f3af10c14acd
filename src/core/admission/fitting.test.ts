import { admit } from '../../testing/admitted';
import { takenIn } from '../../testing/fixtures';
import { idOf, lot } from '../../testing/fixtures';
import type { Payloads } from '../logbook';
describe('accumulators and primary cells', () => {
  const primary: Payloads['cell.fitted'] = {
    cellCode: 'SR621SW',
    lotId: null,
    supplier: '',
    lotCode: '',
    alkalineAgreed: false,
    ownersOwn: false,
  };
  const kit: Payloads['cell.accumulator'] = {
    kitCode: 'KT-V21',
    lotId: null,
    supplier: '',
    lotCode: '',
    way: 'kit with tabs',
    tabContactOhm: null,
    unchargedBecause: 'it swelled',
  };
  it('never change places, but what was found is recorded', () => {
    const light = takenIn('cell only', 'vessarin-210s');
    expect(admit(light, () => light.add('cell.fitted', primary))).toMatchObject({
      verdict: 'refused',
      reasons: [expect.stringContaining('leak or burst')],
    });
    expect(
      admit(light, () => light.add('cell.found', { marking: 'SR920SW', condition: 'clean' })),
    ).toMatchObject({
      verdict: 'admitted',
    });
    const plain = takenIn('recharge or new accumulator');
    expect(admit(plain, () => plain.add('cell.accumulator', kit))).toMatchObject({ verdict: 'refused' });
  });
  it.each([
    ['the kit of this calibre', kit, 'admitted'],
    ['the kit however it is written', { ...kit, kitCode: 'kt v21' }, 'admitted'],
    ['the kit of another', { ...kit, kitCode: 'KT-V33' }, 'refused'],
    ['a lot that is not of kits', { ...kit, lotId: lot.id }, 'refused'],
    ['a lot of the kit', { ...kit, lotId: idOf('kit lot') }, 'admitted'],
    ['a lot past its date', { ...kit, lotId: idOf('old kit lot') }, 'refused'],
    ['a lot in quarantine', { ...kit, lotId: idOf('doubtful kit lot') }, 'refused'],
  ])('%s: %s', (_, payload, verdict) => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    const kits = [
      lot,
      { ...lot, id: idOf('kit lot'), item: 'kit' as const, code: 'KT-V21' },
      { ...lot, id: idOf('old kit lot'), item: 'kit' as const, code: 'KT-V21', bestBefore: '2026-01-31' },
      {
        ...lot,
        id: idOf('doubtful kit lot'),
        item: 'kit' as const,
        code: 'KT-V21',
        quarantined: 'two leaked',
      },
    ];
    expect(admit(job, () => job.add('cell.accumulator', payload), kits).verdict).toBe(verdict);
    // A bench whose clock is behind brings no kit back into its date.
    const long = { occurredAt: '2025-01-05T10:00:00.000Z' };
    expect(admit(job, () => job.add('cell.accumulator', payload, long), kits).verdict).toBe(verdict);
  });
  it('no bench whose clock is behind brings a cell back into its date', () => {
    const job = takenIn('cell only');
    job.add('cell.well-measured', { diameterMm: 7, depthMm: 2.3 });
    const old = { ...lot, bestBefore: '2026-01-31' };
    const fresh = (from: typeof lot) => ({ ...primary, lotId: from.id, ownersOwn: false });
    const long = { occurredAt: '2025-01-05T10:00:00.000Z' };
    expect(admit(job, () => job.add('cell.fitted', fresh(lot), long), [lot]).verdict).toBe('admitted');
    expect(admit(job, () => job.add('cell.fitted', fresh(old), long), [old])).toMatchObject({
      verdict: 'refused',
      reasons: ['Lot S-1 is past its best-before date (31 Jan 2026).'],
    });
  });
  it('the same cell goes back only where no other was fitted, and a later fitting takes its place', () => {
    const job = takenIn('cell only');
    job.add('cell.fitted', primary);
    expect(admit(job, () => job.add('cell.put-back', { reason: 'good' }))).toMatchObject({
      verdict: 'refused',
    });
    const other = takenIn('cell only');
    other.add('cell.put-back', { reason: 'good' });
    other.add('cell.fitted', primary);
    expect(other.state().wells[0]).toMatchObject({ putBack: null });
  });
  it('a cell that is taped and in the bin is never offered again; one with its owner may come back', () => {
    for (const [to, verdict] of [
      ['spent bin', 'refused'],
      ['owner', 'admitted'],
    ] as const) {
      const job = takenIn('cell only');
      job.add('cell.found', { marking: '364', condition: 'clean' });
      job.add('cell.old-settled', { taped: true, to });
      expect(admit(job, () => job.add('cell.put-back', { reason: 'good' })).verdict).toBe(verdict);
    }
  });
});
