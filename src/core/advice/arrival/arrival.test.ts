import { Logbook } from '../../../testing/fixtures';
import type { Payloads } from '../../logbook';
import { readyToOpen } from './readyToOpen';
const availability: Payloads['arrive.ready'] = {
  cell: 'available',
  seal: 'not available',
  closingTool: 'available',
  parts: 'not needed',
  riskAccepted: false,
};

function arrived(more: (job: Logbook) => void = () => undefined) {
  const job = new Logbook();
  job.add('arrive.watch', {
    maker: 'Orrelin',
    reference: 'C2140-3',
    serial: '',
    engraved: '',
    ratingBar: 3,
    crownClock: 3,
  });
  job.add('arrive.complaint', { picked: ['stopped'], words: '' });
  job.add('arrive.service', { service: 'cell only', priceMinor: 1400 });
  job.add('arrive.promise', { promisedAt: '2026-03-17T16:00:00.000Z' });
  job.add('arrive.consent', { risks: [], given: true });
  more(job);
  return readyToOpen(job.state());
}

describe('ready to open?', () => {
  it('yes, once everything the counter asks stands', () => {
    expect(arrived().verdict).toBe('ready');
    expect(readyToOpen(new Logbook().state())).toMatchObject({
      verdict: 'not yet',
      reasons: ['Missing: the watch.'],
    });
  });
  it('not without consent', () => {
    expect(arrived((job) => job.add('arrive.consent', { risks: [], given: false })).verdict).toBe(
      'no consent',
    );
  });
  it('not while a seal is missing, unless the owner accepts it or it has come', () => {
    expect(arrived((job) => job.add('arrive.ready', availability))).toMatchObject({
      verdict: 'not yet',
      reasons: [expect.stringContaining('Not in this shop: seal.')],
    });
    expect(arrived((job) => job.add('arrive.ready', { ...availability, riskAccepted: true }))).toMatchObject({
      verdict: 'ready',
      reasons: [
        expect.any(String),
        expect.stringContaining(
          'Not in this shop: seal; the owner accepts a temporary closing without a statement about water.',
        ),
      ],
    });
    const come = arrived((job) => {
      job.add('arrive.ready', availability);
      job.add('arrive.parts-request', {
        lines: [{ what: 'gasket', count: 1 }],
        supplier: '',
        expectedOn: null,
      });
      job.add('arrive.parts-arrived', { note: '' });
    });
    expect(come.verdict).toBe('ready');
  });
  it('not here once referred, and a diving watch is thought about twice', () => {
    expect(
      arrived((job) =>
        job.add('arrive.decision', {
          decision: 'referred',
          reason: 'not possible at this bench',
          to: 'x',
          told: '',
        }),
      ).verdict,
    ).toBe('not here');
    const diver = arrived((job) =>
      job.add('arrive.watch', {
        maker: '',
        reference: '',
        serial: '',
        engraved: '',
        ratingBar: 30,
        crownClock: null,
      }),
    );
    expect(diver.reasons.join()).toContain('Rated for diving');
  });
});
