import { beside, WorkerBroke } from './beside';

/** A worker as the page sees one, that answers each call at once, or breaks at its first. */
class FakeWorker extends EventTarget {
  terminated = false;
  constructor(private readonly breaks: boolean) {
    super();
  }
  postMessage({ id }: { readonly id: string }): void {
    queueMicrotask(() =>
      this.dispatchEvent(
        this.breaks
          ? new Event('error')
          : new MessageEvent('message', { data: { id, type: 'RAW', value: 'answered' } }),
      ),
    );
  }
  terminate(): void {
    this.terminated = true;
  }
}

interface Asked {
  readonly question: () => string;
}

const started: FakeWorker[] = [];
const besideOf = (...breaks: readonly boolean[]) => {
  started.length = 0;
  return beside<Asked>('/worker.js', 'The forecast', () => {
    const worker = new FakeWorker(breaks[started.length] ?? false);
    started.push(worker);
    return worker as unknown as Worker;
  });
};

describe('what works beside the page', () => {
  it('is started once, for every question', async () => {
    const { ask } = besideOf();
    expect(await ask((worker) => worker.question())).toBe('answered');
    expect(await ask((worker) => worker.question())).toBe('answered');
    expect(started).toHaveLength(1);
  });

  it('is started again where it breaks, and answers the same question', async () => {
    const { ask } = besideOf(true, false);
    expect(await ask((worker) => worker.question())).toBe('answered');
    expect(started.map(({ terminated }) => terminated)).toEqual([true, false]);
  });

  it('says so where it breaks again, and starts anew at the next question', async () => {
    const { ask } = besideOf(true, true, false);
    await expect(ask((worker) => worker.question())).rejects.toThrow(WorkerBroke);
    expect(await ask((worker) => worker.question())).toBe('answered');
    expect(started).toHaveLength(3);
  });
});
