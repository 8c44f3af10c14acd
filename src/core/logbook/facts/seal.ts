import { clockWords, type View } from '../../craft/cases';
import type { PressMeasures } from '../../craft/closing';
import type { GasketFinding, Groove, RingState } from '../../craft/gaskets';
import { figure } from '../../craft/judgement';
import { isSeamRing } from '../../craft/parts';
import type { Envelope, FactKinds } from '../envelope';
import { provedBeforeClosing, type SetFacts } from './set';
import { type TestFacts, testsAreBefore } from './waterTest';
import type { TrayFacts } from './tray';

export const GASKET_PROFILES = ['round', 'flat', 'L-shaped', 'shaped to the case', 'not seen'] as const;
export const GREASED_BY = ['pad', 'fingers and wipe', 'not noted'] as const;
export const SEAL_STATES = ['renewed', 'inspected', 'not touched', 'none there'] as const;
type SealState = (typeof SEAL_STATES)[number];

export interface SealPayloads {
  'seal.gasket': {
    readonly state: RingState;
    readonly findings: readonly GasketFinding[];
    readonly ageYears: number | null;
    readonly meetsWater: boolean | null;
    readonly greased: boolean;
    /** How the grease was put on. */
    readonly greasedBy: (typeof GREASED_BY)[number];
    readonly profile: (typeof GASKET_PROFILES)[number];
    /** As fitted, e.g. `30.5 × 0.70`; empty where it was not measured. */
    readonly size: string;
    /** Of a new ring; null where it did not come from this stock. */
    readonly lotId: string | null;
    /** Why, in particular where the advice was not followed. */
    readonly reason: string;
  };
  /** The groove of the seam, as measured. */
  'seal.groove': Groove & {
    /** How well the sections of its rings are known, ±. */
    readonly sectionWithinMm: number;
  };
  /** The old ring out of its groove, as far as it was measured. */
  'seal.old-ring': {
    readonly heightMm: number | null;
    readonly widthMm: number | null;
    readonly insideMm: number | null;
    readonly outsideMm: number | null;
    readonly profile: (typeof GASKET_PROFILES)[number];
  };
  /** The seals inside: of an inner cover and of a hatch. */
  'seal.inside': { readonly innerCover: SealState; readonly hatch: SealState };
  /** What a press goes by. */
  'seal.press': PressMeasures;
  /** Steps of the order of closing done, by their ids. */
  'seal.steps': { readonly steps: readonly string[]; readonly asShown: boolean };
  /** The seals beside the back's. */
  'seal.other': { readonly crown: SealState; readonly pushers: SealState; readonly crystal: SealState };
  /** The serial read in the back as it goes on; empty where none stands there. */
  'seal.paired': { readonly inBack: string };
  /** How it looks inside before it is closed, beside how it was found. */
  'seal.now': { readonly note: string };
  'seal.closed': {
    readonly how: string;
    readonly seamEven: boolean;
    /** Where a sector stands up or the ring shows, seen from behind. */
    readonly raisedClocks: readonly number[];
    /** The side they are seen from; null where none stands up, and where it was closed before the side was noted. */
    readonly seenFrom: View | null;
    /** Closed on its old seal until a part comes: no claim about water. */
    readonly interim: boolean;
  };
}

const PRESS_WORDS: Readonly<Record<keyof PressMeasures, string>> = {
  crystalMm: 'crystal',
  bezelMm: 'bezel',
  crystalAboveMm: 'crystal over it',
  caseMm: 'case',
  backMm: 'back',
  backBulgeMm: 'bulge',
  glassMm: 'glass in the back',
  glassAboveMm: 'glass over its rim',
};

type Fact<K extends keyof SealPayloads> = Envelope<K, SealPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface SealFacts {
  paired: Fact<'seal.paired'> | null;
  now: Fact<'seal.now'> | null;
  gasket: Fact<'seal.gasket'> | null;
  /** Opened again since: the ring is judged anew. */
  ringVoided: boolean;
  otherSeals: Fact<'seal.other'> | null;
  groove: Fact<'seal.groove'> | null;
  oldRing: Fact<'seal.old-ring'> | null;
  insideSeals: Fact<'seal.inside'> | null;
  press: Fact<'seal.press'> | null;
  /** Steps of the order of closing, each with the entry that ticked it. */
  closingDone: Map<string, Fact<'seal.steps'>>;
  closed: Fact<'seal.closed'> | null;
}

/** What was done to the ring, as long as the watch was not opened again since. */
export function activeRing({ gasket, ringVoided }: Pick<SealFacts, 'gasket' | 'ringVoided'>) {
  return ringVoided ? null : gasket;
}

export const noSealFacts = (): SealFacts => ({
  paired: null,
  now: null,
  gasket: null,
  ringVoided: false,
  otherSeals: null,
  groove: null,
  oldRing: null,
  insideSeals: null,
  press: null,
  closingDone: new Map(),
  closed: null,
});

/** What became of a ring that lay on the tray, by what was done to the gasket. */
const RING_BECAME = {
  renewed: 'replaced',
  reused: 'back in place',
  'left in place': 'back in place',
} as const;

/** What was done to the ring is said once: it does not wait on the tray for a second word. One that never was there leaves it. */
function settleSeamRings({ parts }: TrayFacts, entry: Fact<'seal.gasket'>): void {
  const { id, occurredAt, technicianId, payload } = entry;
  for (const [partId, part] of parts) {
    if (part.settled !== null || !isSeamRing(part.off.payload)) continue;
    if (payload.state === 'none there') parts.delete(partId);
    else
      parts.set(partId, {
        ...part,
        settled: {
          id,
          occurredAt,
          technicianId,
          payload: { partEntryId: partId, outcome: RING_BECAME[payload.state], note: '' },
        },
      });
  }
}

export const sealKinds: FactKinds<SealPayloads, SealFacts & TrayFacts & SetFacts & TestFacts> = {
  'seal.gasket': {
    words: ({ state, greased, greasedBy, size }) =>
      `gasket ${state}${size && ` (${size})`}${greased ? `, greased${greasedBy === 'not noted' ? '' : ` by ${greasedBy}`}` : ''}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      facts.gasket = entry;
      facts.ringVoided = false;
      settleSeamRings(facts, entry);
    },
  },
  'seal.other': {
    words: ({ crown, pushers, crystal }) => `seals: crown ${crown}, pushers ${pushers}, crystal ${crystal}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.otherSeals = entry),
  },
  'seal.groove': {
    words: ({ innerMm, outerMm, depthMm, stepMm, seat }) =>
      `groove ${figure(innerMm)} to ${figure(outerMm)} mm, ${figure(depthMm)} mm deep${stepMm > 0 ? `, the back enters ${figure(stepMm)} mm` : ''}, ring on the ${seat}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.groove = entry),
  },
  'seal.old-ring': {
    words: ({ heightMm, widthMm, insideMm, outsideMm, profile }) =>
      `old ring${profile === 'not seen' ? '' : `, ${profile}`}: ${(
        [
          [heightMm, 'high'],
          [widthMm, 'wide'],
          [insideMm, 'inside'],
          [outsideMm, 'outside'],
        ] as const
      )
        .flatMap(([value, what]) => (value === null ? [] : [`${figure(value)} mm ${what}`]))
        .join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.oldRing = entry),
  },
  'seal.inside': {
    words: ({ innerCover, hatch }) => `seals inside: inner cover ${innerCover}, hatch ${hatch}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.insideSeals = entry),
  },
  'seal.press': {
    words: (measures) =>
      `measured for the press: ${Object.entries(PRESS_WORDS)
        .flatMap(([name, words]) => {
          const value = measures[name as keyof PressMeasures];
          return value === null ? [] : [`${words} ${figure(value)} mm`];
        })
        .join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.press = entry),
  },
  'seal.steps': {
    words: ({ steps, asShown }) =>
      `${steps.length === 1 ? 'closing step' : `${steps.length} closing steps`} done${asShown ? ' as shown' : ''}: ${steps.join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => {
      for (const step of entry.payload.steps) facts.closingDone.set(step, entry);
    },
  },
  'seal.paired': {
    words: ({ inBack }) =>
      inBack === '' ? 'no serial in the back at closing' : `serial in the back at closing: ${inBack}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.paired = entry),
  },
  'seal.now': {
    words: ({ note }) => `closing check${note && `: ${note}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.now = entry),
  },
  'seal.closed': {
    words: ({ how, seamEven, raisedClocks, seenFrom, interim }) =>
      `closed${interim ? ' temporarily' : ''}: ${how}, seam ${seamEven ? 'even all round' : `not even${raisedClocks.length > 0 ? ` at ${clockWords(raisedClocks, seenFrom)}` : ''}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      testsAreBefore(facts);
      provedBeforeClosing(facts);
      facts.closed = entry;
    },
  },
};
