import { takenIn } from '../../../testing/fixtures';
import fc from 'fast-check';
import { context, dryTest, dryTestAt, measuredCase, Logbook, lot, readyJob } from '../../../testing/fixtures';
import { handback } from './handback';
import { waterStatement } from '../tightness';
import { waitsFor } from '../dayplan';
import { SERVICES } from '../../craft/policy';
import { looseCells, type Payloads, proofsOf } from '../../logbook';

const opened: Payloads['open.back'] = {
  kind: 'snap-on',
  openedWith: 'case knife',
  protection: 'film',
  went: 'freely',
  spotClock: 7,
  lipClock: null,
  seenFrom: 'behind',
  toolIds: [],
  separationMm: null,
  rearMm: null,
};

const shut: Payloads['seal.closed'] = {
  how: 'thumbs',
  seamEven: true,
  raisedClocks: [],
  seenFrom: null,
  interim: false,
};

const missing = (job: Logbook): string[] =>
  job.state().progress.flatMap((stage) => stage.missing.map((each) => each.requirement));

const renewed: Payloads['seal.gasket'] = {
  state: 'renewed',
  findings: [],
  ageYears: null,
  meetsWater: true,
  greased: true,
  greasedBy: 'not noted',
  profile: 'round',
  size: '30.5 × 0.70',
  lotId: null,
  reason: 'will meet water',
};

function prove(job: Logbook): void {
  job.add('set.runs', { runs: true, watchedSeconds: 60 });
  job.add('set.time', { set: true });
  const { facts, calibre } = job.state();
  job.add('set.functions', {
    proved: Object.fromEntries(proofsOf(facts, calibre).map(({ what }) => [what, 'works'])),
    handedBackSo: '',
  });
  job.add('set.outside', { proved: { 'crown in every position': 'works' }, handedBackSo: '' });
}

const verdictOf = (job: Logbook) => handback(job.state(), [lot], context);

const status = (job: Logbook, stage: string) =>
  job.state().progress.find((each) => each.stage === stage)?.status;

describe('parts that are not available', () => {
  const request: Payloads['arrive.parts-request'] = {
    lines: [{ what: 'gasket 30.5 × 0.70', count: 1 }],
    supplier: 'Saltmarsh Wholesale',
    expectedOn: '2026-03-20',
  };
  it('are waited for, on the envelope with their day, until they arrive', () => {
    const job = takenIn('cell only');
    job.add('arrive.parts-request', request);
    expect(waitsFor(job.state())).toBe('gasket 30.5 × 0.70, expected 20 Mar 2026');
    job.add('arrive.parts-arrived', { note: '' });
    expect(waitsFor(job.state())).toContain('Open');
    job.add('arrive.parts-request', { ...request, expectedOn: null });
    expect(waitsFor(job.state())).toBe('gasket 30.5 × 0.70');
  });
  it('let it be closed temporarily, with no word about water and no test asked', () => {
    const job = takenIn('reseal and test');
    job.add('arrive.parts-request', request);
    job.add('open.back', opened);
    job.add('seal.closed', { ...shut, interim: true });
    expect(missing(job)).not.toContain('test.made');
    expect(waterStatement(job.state(), 'UTC')).toMatchObject({
      verdict: 'not tested',
      statement: expect.stringContaining('Closed temporarily') as string,
    });
    job.add('test.made', dryTest);
    expect(waterStatement(job.state(), 'UTC').verdict).toBe('not tested');
  });
});

describe('each service', () => {
  it('reseal and test: the same cell back, other seals and a pressure test, and only then is it ready', () => {
    const job = takenIn('reseal and test');
    job.add('arrive.wear', { uses: ['swimming'], words: '' });
    job.add('open.back', opened);
    job.add('cell.found', { marking: 'SR621SW', condition: 'clean' });
    expect(looseCells(job.state())).toMatchObject([{ well: 'main', marking: 'SR621SW', kind: 'old' }]);
    job.add('cell.put-back', { reason: 'reseal only, measured 1.56 V' });
    expect(looseCells(job.state())).toEqual([]);
    job.add('seal.gasket', renewed);
    job.add('seal.other', { crown: 'renewed', pushers: 'none there', crystal: 'not touched' });
    job.add('seal.closed', shut);
    prove(job);
    expect(missing(job)).toContain('test.made');
    job.add('test.case', measuredCase);
    job.add('test.made', dryTestAt(5));
    const { verdict, statement } = verdictOf(job);
    expect(verdict).toBe('ready to sign');
    expect(statement.done).toEqual(
      expect.arrayContaining([
        'The same cell put back: reseal only, measured 1.56 V.',
        'Gasket renewed (30.5 × 0.70) and greased.',
        'Seal of the crown renewed.',
      ]),
    );
    expect(statement.notDone).toContain('Seal of the crystal not touched.');
    expect(statement.water).toContain('Tested at 5 bar');
    expect(statement.nextVisit).toContain('The cell put back: It is not known when it was fitted');
    expect(status(job, 'cell')).toBe('not needed');
  });

  it('recharge: light alone needs no opening; an accumulator does, with the old one settled', () => {
    const job = takenIn('recharge or new accumulator', 'vessarin-210s');
    job.add('cell.charged', { by: 'light', hours: 30, outcome: 'steps normally' });
    prove(job);
    expect(status(job, 'open')).toBe('not needed');
    expect(status(job, 'seal')).toBe('not needed');
    expect(verdictOf(job)).toMatchObject({ verdict: 'ready to sign' });
    expect(verdictOf(job).statement.nextVisit).toContain('light');
    const renewedCell = takenIn('recharge or new accumulator', 'vessarin-330r');
    renewedCell.add('cell.accumulator', {
      kitCode: 'KT-V33',
      lotId: null,
      supplier: 'Saltmarsh Wholesale',
      lotCode: 'K-9',
      way: 'kit with tabs',
      tabContactOhm: null,
      unchargedBecause: null,
    });
    prove(renewedCell);
    expect(missing(renewedCell)).toEqual(
      expect.arrayContaining(['open.back', 'cell.old-settled', 'seal.gasket', 'seal.closed']),
    );
    renewedCell.add('cell.old-settled', { taped: true, to: 'spent bin' });
    renewedCell.add('open.back', opened);
    renewedCell.add('seal.gasket', renewed);
    renewedCell.add('seal.closed', shut);
    // What was proved before the closing is asked again after it, the crown with it.
    expect(missing(renewedCell)).toEqual([
      'cell.charged',
      'set.runs',
      'set.time',
      'set.functions',
      'set.crown',
      'handback.signed',
    ]);
    // A new accumulator is nearly empty: it is charged and watched, too.
    renewedCell.add('cell.charged', { by: 'rotor', hours: 8, outcome: 'steps normally' });
    prove(renewedCell);
    const { verdict, statement } = verdictOf(renewedCell);
    expect(verdict).toBe('ready to sign');
    expect(statement.fitted).toEqual(['KT-V33, kit with tabs, Saltmarsh Wholesale, lot K-9.']);
    expect(statement.nextVisit).toContain('being worn');
  });

  it('diagnose: a finding is enough on a closed watch, an opened one is closed again', () => {
    const job = takenIn('diagnose');
    job.add('check.diagnosis', {
      cause: 'coil severed',
      also: null,
      next: 'new circuit',
      words: 'coil infinite',
    });
    expect(verdictOf(job)).toMatchObject({ verdict: 'ready to sign' });
    expect(verdictOf(job).statement.found).toContain(
      'Finding: coil severed, coil infinite. Next: new circuit.',
    );
    job.add('open.back', opened);
    expect(missing(job)).toContain('seal.closed');
    job.add('seal.closed', shut);
    expect(missing(job)).toEqual(['set.crown', 'handback.signed']);
    prove(job);
    expect(verdictOf(job).verdict).toBe('ready to sign');
  });

  it('refer: asks only where it went and why', () => {
    const job = new Logbook();
    job.add('arrive.watch', {
      maker: '',
      reference: '',
      serial: '',
      engraved: '',
      ratingBar: 30,
      crownClock: null,
    });
    job.add('arrive.complaint', { picked: [], words: 'new cell, please' });
    job.add('arrive.service', { service: 'refer', priceMinor: 0 });
    expect(job.state().current).toBe('arrive');
    job.add('arrive.consent', { risks: [], given: false });
    expect(waitsFor(job.state())).toContain('referral and its reason');
    job.add('arrive.decision', {
      decision: 'referred',
      reason: 'certified diving watch',
      to: 'the diving bench at Brennhavn',
      told: '',
    });
    expect(job.state().current).toBe('handback');
    expect(verdictOf(job)).toMatchObject({ verdict: 'ready to sign' });
    expect(verdictOf(job).statement.done).toEqual([
      'Referred to the diving bench at Brennhavn: certified diving watch.',
    ]);
  });

  it('any service declined on the way ends there, once what was opened is closed', () => {
    const job = takenIn('cell only');
    job.add('open.back', opened);
    job.add('arrive.decision', { decision: 'declined', reason: 'owner’s decision', to: '', told: '' });
    expect(missing(job)).toEqual(['seal.closed', 'set.crown', 'handback.signed']);
    expect(job.state().current).toBe('seal');
  });

  it('never calls a job ready while anything it asks for is missing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SERVICES),
        fc.subarray(readyJob().entries.map((_, index) => index)),
        (service, kept) => {
          const job = new Logbook();
          for (const index of kept) {
            const entry = readyJob().entries[index];
            if (entry && entry.kind !== 'arrive.service') job.entries.push(entry);
          }
          job.add('arrive.service', { service, priceMinor: 0 });
          const lacks = missing(job).filter((each) => each !== 'handback.signed');
          return (verdictOf(job).verdict === 'ready to sign') === (lacks.length === 0);
        },
      ),
    );
  });
});
