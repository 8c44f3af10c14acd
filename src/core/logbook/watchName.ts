import type { Payloads } from './entry';

type Watch = Pick<Payloads['arrive.watch'], 'maker' | 'reference' | 'serial'>;

/** What a watch is called: its maker and reference, as `Orrelin C2140-3`; where it bears neither, that it is unmarked. */
export function watchName(watch: Pick<Watch, 'maker' | 'reference'> | null | undefined): string {
  return [watch?.maker, watch?.reference].filter(Boolean).join(' ') || 'unmarked watch';
}

/** The same with its serial, which tells two alike apart. */
export function watchNameWithSerial(watch: Watch | null | undefined): string {
  return watch?.serial ? `${watchName(watch)}, serial ${watch.serial}` : watchName(watch);
}
