import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';

const FOLDER = join(process.cwd(), 'benchmarks');

/**
 * Benchmarks that make their own truth, and the faces of the core they hold against it. They share nothing else with it: no
 * table, no constant, no random numbers.
 */
const OWN_TRUTH: Readonly<Record<string, readonly string[]>> = {
  'charging.ts': ['core/craft/charging'],
  'chargingSeen.ts': ['core/craft/charging'],
  'leakUnruly.ts': ['core/craft/tightness'],
  'ailing.ts': [],
  'assess.ts': ['core/craft/health'],
  'diagnosis.ts': [],
  'lives.ts': ['core/craft/life'],
  'oneCell.ts': [],
  'shopLives.ts': ['core/craft/life'],
  'markings.ts': ['core/craft/cells', 'server/store/shippedCells'],
  'sisters.ts': ['core/craft/book', 'core/craft/identify', 'server/store/shippedCells'],
  'random.ts': [],
};

/** What a file imports to be run; what is imported for its types alone is gone by then. */
function importsOf(file: string): readonly string[] {
  const text = readFileSync(join(FOLDER, file), 'utf8');
  return [...text.matchAll(/^import (?!type\b)[^;]*?from '([^']+)';/gms)].flatMap(([, from = '']) =>
    from.startsWith('../src/') ? [from.slice('../src/'.length)] : [],
  );
}

describe('a benchmark', () => {
  it.each(Object.entries(OWN_TRUTH))('%s makes its truth without the core', (file, faces) => {
    expect(importsOf(file).filter((each) => !faces.includes(each))).toEqual([]);
  });

  it('reaches into the core by its faces alone', () => {
    const inner = readdirSync(FOLDER)
      .filter((file) => file.endsWith('.ts'))
      .flatMap((file) =>
        importsOf(file)
          .filter((from) => from.startsWith('core/') && from.split('/').length > 3)
          .map((from) => `${file}: ${from}`),
      );
    expect(inner).toEqual([]);
  });

  it('is run by the command that runs them all', () => {
    const run = readFileSync(join(process.cwd(), 'scripts/benchmark.mjs'), 'utf8');
    for (const file of Object.keys(OWN_TRUTH))
      if (!['random.ts', 'oneCell.ts', 'assess.ts'].includes(file))
        expect(run).toContain(`'${file.replace('.ts', '')}'`);
    expect(run).toContain("'sisters'");
  });
});
