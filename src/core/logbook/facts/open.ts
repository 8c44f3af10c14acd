import { type BackKind, type MeasuredBack, measureWords, type View } from '../../craft/cases';
import { figure } from '../../craft/judgement';
import { partInWords } from '../../craft/parts';
import type { Envelope, FactKinds } from '../envelope';
import type { SealFacts } from './seal';
import { proofsVoided, type SetFacts } from './set';
import { type TestFacts, testsAreBefore } from './waterTest';
import type { TrayFacts, TrayPayloads } from './tray';

export const AS_FOUND = [
  'nothing unusual',
  'tool marks',
  'bent contact',
  'insulator missing',
  'residue',
  'worn screw heads',
  'scratched notes of an earlier repairer',
] as const;
export type AsFound = (typeof AS_FOUND)[number];

/** Whose hand left it. */
export const LEFT_BY = ['an earlier hand', 'this shop'] as const;

/** What lies between tool and back; an older program did not note it. */
export const PROTECTIONS_ASKED = ['film', 'bare tool'] as const;
export const PROTECTIONS = [...PROTECTIONS_ASKED, 'not noted'] as const;
/** How a back came off; an older program did not note it. */
export const OPENED_HOW_ASKED = ['freely', 'resisted', 'bound half way'] as const;
export const OPENED_HOW = [...OPENED_HOW_ASKED, 'not noted'] as const;

/** What a mark on a photograph points at. */
export const PHOTO_MARKS = [
  'tool mark',
  'bent contact',
  'missing insulator',
  'residue',
  'worn screw head',
  'scratched note',
  'print inside',
  'something loose',
] as const;
export type PhotoMark = (typeof PHOTO_MARKS)[number];

export interface OpenPayloads extends TrayPayloads {
  'open.back': {
    readonly kind: BackKind;
    readonly openedWith: string;
    readonly protection: (typeof PROTECTIONS)[number];
    readonly went: (typeof OPENED_HOW)[number];
    /** Where the tool went in. */
    readonly spotClock: number | null;
    readonly lipClock: number | null;
    /** The side both are seen from. */
    readonly seenFrom: View;
    /** The shop's tools it was opened with; empty where none of its list was. */
    readonly toolIds: readonly string[];
    /** How the wrench was set, between jaw centres; null where nothing was set. */
    readonly separationMm: number | null;
    readonly rearMm: number | null;
  };
  /** The back as it lies there, measured before anything is set. */
  'open.measured': MeasuredBack;
  /** Steps of the plan done, by their ids; as shown, or otherwise. */
  'open.steps': { readonly steps: readonly string[]; readonly asShown: boolean };
  'open.as-found': { readonly found: readonly AsFound[]; readonly note: string };
  /** Text printed inside back or module: cell, polarity, reset. Evidence for what follows. */
  'open.print': { readonly text: string };
  /** Each is accounted for at closing. */
  'open.seals': { readonly rim: number; readonly innerCover: number; readonly hatch: number };
  /** A place on a photograph of this job, in percent from its left and upper edge. */
  'open.photo-mark': {
    readonly photo: string;
    readonly xPercent: number;
    readonly yPercent: number;
    readonly kind: PhotoMark;
    readonly by: (typeof LEFT_BY)[number];
    readonly note: string;
  };
  /** The serial inside the back; empty where none stands there. */
  'open.inside-serial': { readonly serial: string };
  /** Another watch lay open at the same time. Written by the server, to both. */
  'open.together': {
    readonly otherJobId: string;
    readonly otherTicket: string;
    readonly otherSerial: string;
  };
  /** What to do the same, or not, when this watch comes back. */
  'open.technique': { readonly note: string };
}

/** How the wrench was set, e.g. `26.85 mm, rear 23.25 mm`; empty where nothing was. */
export function settingOf(back: Pick<OpenPayloads['open.back'], 'separationMm' | 'rearMm'>): string {
  return [
    ...(back.separationMm === null ? [] : [`${figure(back.separationMm)} mm`]),
    ...(back.rearMm === null ? [] : [`rear ${figure(back.rearMm)} mm`]),
  ].join(', ');
}

type Fact<K extends keyof OpenPayloads> = Envelope<K, OpenPayloads[K]>;

/** The facts of this stage as they stand: the latest live entry in each place. */
export interface OpenFacts extends TrayFacts {
  back: Fact<'open.back'> | null;
  asFound: Fact<'open.as-found'> | null;
  techniques: Fact<'open.technique'>[];
  prints: Fact<'open.print'>[];
  seals: Fact<'open.seals'> | null;
  measured: Fact<'open.measured'> | null;
  /** Steps of the opening plan, each with the entry that ticked it. */
  stepsDone: Map<string, Fact<'open.steps'>>;
  photoMarks: Fact<'open.photo-mark'>[];
  insideSerial: Fact<'open.inside-serial'> | null;
  together: Fact<'open.together'>[];
}

export const noOpenFacts = (): OpenFacts => ({
  back: null,
  asFound: null,
  techniques: [],
  prints: [],
  seals: null,
  measured: null,
  stepsDone: new Map(),
  photoMarks: [],
  insideSerial: null,
  together: [],
  parts: new Map(),
});

export const openKinds: FactKinds<OpenPayloads, OpenFacts & SealFacts & SetFacts & TestFacts> = {
  'open.back': {
    words: (back) =>
      `back opened: ${back.kind}, with ${back.openedWith}${settingOf(back) && `, set to ${settingOf(back)}`}${back.went === 'freely' || back.went === 'not noted' ? '' : `, ${back.went}`}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => {
      // Opening again in the same visit voids what was proved on the closed watch.
      if (facts.closed) {
        facts.closed = null;
        proofsVoided(facts);
        testsAreBefore(facts);
        facts.paired = null;
        facts.now = null;
        // The seam was proved with this ring as it lay: opened, it is judged and closed anew.
        facts.ringVoided = facts.gasket !== null;
        facts.insideSeals = null;
        facts.closingDone = new Map();
      }
      facts.back = entry;
    },
  },
  'open.measured': {
    words: (back) => `back measured: ${measureWords(back).join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.measured = entry),
  },
  'open.steps': {
    words: ({ steps, asShown }) =>
      `${steps.length === 1 ? 'step' : `${steps.length} steps`} done${asShown ? ' as shown' : ''}: ${steps.join(', ')}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => {
      for (const step of entry.payload.steps) facts.stepsDone.set(step, entry);
    },
  },
  'open.photo-mark': {
    words: ({ kind, by, note }) => `marked on a photo: ${kind}, left by ${by}${note && `, ${note}`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.photoMarks.push(entry),
  },
  'open.inside-serial': {
    words: ({ serial }) =>
      serial === '' ? 'no serial inside the back' : `serial inside the back: ${serial}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.insideSerial = entry),
  },
  'open.together': {
    words: ({ otherTicket, otherSerial }) =>
      `open together with ${otherTicket}${otherSerial && `, serial ${otherSerial} in its back`}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.together.push(entry),
  },
  'open.part': {
    words: (part) => `off: ${partInWords(part)}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void facts.parts.set(entry.id, { off: entry, settled: null }),
  },
  'open.part-settled': {
    words: ({ outcome }) => `part ${outcome}`,
    afterSigning: 'reopens',
    fold: (facts, entry, standsFor) => {
      const partId = standsFor(entry.payload.partEntryId);
      const part = facts.parts.get(partId);
      if (part) facts.parts.set(partId, { ...part, settled: entry });
    },
  },
  'open.print': {
    words: ({ text }) => `printed inside: ${text}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.prints.push(entry),
  },
  'open.seals': {
    words: ({ rim, innerCover, hatch }) =>
      `seals: ${figure(rim, 0)} at the rim, ${figure(innerCover, 0)} inner cover, ${figure(hatch, 0)} hatch`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void (facts.seals = entry),
  },
  'open.technique': {
    words: ({ note }) => `for next time: ${note}`,
    afterSigning: 'keeps',
    fold: (facts, entry) => void facts.techniques.push(entry),
  },
  'open.as-found': {
    words: ({ found, note }) => `as found: ${[...found, note].filter(Boolean).join(', ')}`,
    afterSigning: 'reopens',
    fold: (facts, entry) => void (facts.asFound = entry),
  },
};
