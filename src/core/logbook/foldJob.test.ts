import { idOf, readingOf, readyJob } from '../../testing/fixtures';
import { undoable } from './foldJob';
const voltage = (value: number) => readingOf('restVoltageV', value);

describe('undo', () => {
  it('offers this technician’s own last standing entry', () => {
    const job = readyJob();
    job.add('check.reading', voltage(1.4), { technicianId: idOf('other') });
    const last = undoable(job.state(), idOf('technician'));
    expect(last?.kind).toBe('set.functions');
    expect(undoable(job.state(), idOf('nobody'))).toBeNull();
    job.add('logbook.withdrawn', { reason: 'x' }, { withdraws: last?.id ?? null });
    expect(undoable(job.state(), idOf('technician'))?.kind).toBe('set.time');
  });
});
