import fc from 'fast-check';
import { idOf, newEntryOf } from '../testing/fixtures';
import { SAMPLE_KINDS, samples } from '../testing/samples';
import { JOB_FILE_VERSION, readJobFile } from '.';

const technician = { id: idOf('technician'), name: 'Tess Quarrymoor', initials: 'TQ' };
const HASH = 'a'.repeat(64);

function fileWith(change: object = {}, kinds = SAMPLE_KINDS): Record<string, unknown> {
  return {
    format: 'wax-lantern-job',
    formatVersion: JOB_FILE_VERSION,
    exportedAt: '2026-03-17T12:00:00.000Z',
    shop: { name: 'Test counter', place: '', zone: 'Europe/Lisbon' },
    job: {
      id: idOf('job'),
      ticket: 'T0001-8',
      visitId: idOf('visit'),
      watchId: idOf('watch'),
      receivedAt: '2026-03-17T09:00:00.000Z',
      follows: null,
    },
    customerId: idOf('customer'),
    customer: { id: idOf('customer'), name: 'Anders Pellwick', phone: '', email: '' },
    technicians: [technician],
    entries: kinds.map((kind, index) => ({
      ...newEntryOf(kind, samples[kind], { id: idOf(`file ${index}`), technicianId: technician.id }),
      jobId: idOf('job'),
      sequence: index + 1,
      recordedAt: '2026-03-17T10:00:00.000Z',
    })),
    statement: {},
    book: {},
    attachments: [],
    ...change,
  };
}

describe('a job file', () => {
  it('is read with every kind of entry, each as it was and when it was put on record', () => {
    const reading = readJobFile(JSON.parse(JSON.stringify(fileWith())));
    expect(reading.verdict).toBe('read');
    if (reading.verdict !== 'read') return;
    const [job] = reading.jobs;
    expect(job?.entries.map(({ entry }) => entry.kind)).toEqual(SAMPLE_KINDS);
    expect(job?.entries.map(({ entry }) => entry.payload)).toEqual(SAMPLE_KINDS.map((kind) => samples[kind]));
    expect(new Set(job?.entries.map(({ recordedAt }) => recordedAt))).toEqual(
      new Set(['2026-03-17T10:00:00.000Z']),
    );
  });

  it('of an older program is raised on the way', () => {
    const [entry] = (fileWith({}, ['seal.closed']).entries as object[]) ?? [];
    const older = { ...entry, payloadVersion: 1, payload: { how: 'thumbs', seamEven: true } };
    const reading = readJobFile(fileWith({ entries: [older] }));
    expect(reading).toMatchObject({
      verdict: 'read',
      jobs: [{ entries: [{ entry: { payload: { interim: false, raisedClocks: [] } } }] }],
    });
  });

  it('of a newer program is refused at the entry it does not know', () => {
    const [entry] = (fileWith({}, ['set.time']).entries as object[]) ?? [];
    const newer = { ...entry, payloadVersion: 9, payload: { set: true, against: 'the satellite' } };
    expect(readJobFile(fileWith({ entries: [newer] }))).toMatchObject({
      verdict: 'damaged',
      fields: [
        {
          path: 'entries.0.payloadVersion',
          message: expect.stringContaining('newer than this program knows') as string,
        },
        { path: 'entries.0.payload' },
      ],
    });
  });

  it.each([
    ['an entry of nobody', { technicians: [{ ...technician, id: idOf('other') }] }, 'Nobody in the file'],
    ['no technician', { technicians: [] }, 'Technicians'],
    ['no entry', { entries: [] }, 'at least one'],
    ['a customer without a name', { customer: { id: idOf('c'), name: '', phone: '', email: '' } }, 'Name'],
    ['an id that is none', { customerId: 'seven' }, 'UUID'],
    [
      'a hash that is none',
      { attachments: [{ hash: 'x', name: '', contentType: '', bytes: 1, base64: '' }] },
      'SHA-256',
    ],
    [
      'bytes that are no base64',
      { attachments: [{ hash: HASH, name: '', contentType: '', bytes: 1, base64: '%%' }] },
      'base64',
    ],
  ])('with %s says where it is damaged', (_, change, words) => {
    const reading = readJobFile(fileWith(change));
    expect(reading.verdict).toBe('damaged');
    if (reading.verdict === 'damaged')
      expect(reading.fields.map((field) => field.message).join()).toContain(words);
  });

  it('that names a file it does not carry is damaged; one that carries it is read', () => {
    const entries = (fileWith({}, ['open.as-found']).entries as object[]).map((entry) => ({
      ...entry,
      attachments: [HASH],
    }));
    expect(readJobFile(fileWith({ entries })).verdict).toBe('damaged');
    const attachments = [{ hash: HASH, name: 'x.png', contentType: 'image/png', bytes: 1, base64: 'AA==' }];
    expect(readJobFile(fileWith({ entries, attachments })).verdict).toBe('read');
  });

  it('of a visit says which of its jobs is damaged', () => {
    const visit = {
      format: 'wax-lantern-visit',
      formatVersion: JOB_FILE_VERSION,
      jobs: [fileWith(), fileWith({ entries: [] })],
    };
    expect(readJobFile(visit)).toMatchObject({
      verdict: 'damaged',
      fields: [{ path: expect.stringMatching(/^jobs\.1\.entries/) as string }],
    });
    expect(readJobFile({ ...visit, jobs: [fileWith(), fileWith()] })).toMatchObject({ verdict: 'read' });
  });

  it('never throws, whatever is opened', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.anything(),
          fc.json().map((text) => JSON.parse(text) as unknown),
        ),
        (value) => ['read', 'foreign', 'damaged'].includes(readJobFile(value).verdict),
      ),
    );
    const fields = Object.keys(fileWith());
    fc.assert(
      fc.property(fc.constantFrom(...fields), fc.anything(), (field, value) => {
        const { verdict } = readJobFile({ ...fileWith(), [field]: value });
        return ['read', 'foreign', 'damaged'].includes(verdict);
      }),
    );
  });
});

describe('a visit that holds more than is taken in at once', () => {
  it.each([
    ['too many jobs', Array.from({ length: 61 }, () => ({})), 'at most 60 jobs; here are 61'],
    [
      'too many entries',
      Array.from({ length: 3 }, () => {
        const [entry] = fileWith({}, SAMPLE_KINDS.slice(0, 1)).entries as object[];
        return fileWith({ entries: Array.from({ length: 4000 }, () => entry) });
      }),
      'at most 10000 entries; here are 12000',
    ],
  ])('is refused: %s', (_, jobs, words) => {
    const reading = readJobFile({ format: 'wax-lantern-visit', formatVersion: JOB_FILE_VERSION, jobs });
    expect(reading).toMatchObject({
      verdict: 'damaged',
      fields: [{ path: 'jobs', message: expect.stringContaining(words) as string }],
    });
  });
});
