import { createContext, type ReactNode, useCallback, useContext, useMemo } from 'react';
import { v7 } from 'uuid';
import { type JobResource, makeEntry, type StockResource, type Technician } from '../../contract';
import type { Book } from '../../core/craft/book';
import {
  type Entry,
  type EntryKind,
  foldJob,
  type JobContext as FoldContext,
  type JobState,
  type Payloads,
} from '../../core/logbook';
import type { Requirement } from '../../core/craft/policy';
import { localDay } from '../../core/craft/time';
import type { Lot, SupplierRecord } from '../../core/craft/stock';
import type { WaitingEntry } from '../api/browserStore';
import { useBench } from '../api/bench';
import { type SeenShop, shopNow } from '../api/resources';
import { useWaiting } from '../api/waiting';
import { type DraftsOfJob, useDrafts } from './drafts';
import { type RecordOptions, useRecorder } from './recorder';
import { lotsOf, type Refused, refusalHere } from './refusalHere';
import { type SeenWatch, useWatchHistory } from './watchHistory';

export interface OpenJob extends DraftsOfJob {
  readonly resource: JobResource;
  readonly state: JobState;
  /** Every entry, those that still wait here last. */
  readonly entries: readonly Entry[];
  readonly context: FoldContext;
  readonly book: Book;
  /** Lots in use, and those this job’s entries name. */
  readonly lots: readonly Lot[];
  readonly suppliers: readonly SupplierRecord[];
  readonly technicians: readonly Technician[];
  readonly technician: Technician | null;
  /** Whether the service ordered asks for a fact. */
  readonly asks: (requirement: Requirement) => boolean;
  readonly today: string;
  /** Earlier visits of this watch, or null while they are not read. */
  readonly earlier: SeenWatch | null;
  readonly waiting: readonly WaitingEntry[];
  /** Records a fact: kept here at once, on record when the server has it. */
  readonly record: <K extends EntryKind>(
    kind: K,
    payload: Payloads[K],
    options?: RecordOptions,
  ) => Promise<string | null>;
  /** Why a fact would not be admitted as the job stands, by the judge the server asks; null where it would. */
  readonly refusalOf: <K extends EntryKind>(
    kind: K,
    payload: Payloads[K],
    options?: RecordOptions,
  ) => Refused | null;
}

const NO_SUPPLIERS: readonly SupplierRecord[] = [];

const Context = createContext<OpenJob | null>(null);

export function useJob(): OpenJob {
  const job = useContext(Context);
  if (!job) throw new Error('A stage stands outside a job.');
  return job;
}

interface Props {
  readonly resource: JobResource;
  readonly shop: SeenShop;
  readonly book: Book;
  readonly stock: StockResource;
  readonly children: ReactNode;
}

/** What the server has, and after it what still waits here. */
function useEntries(resource: JobResource, waiting: readonly WaitingEntry[]): readonly Entry[] {
  const jobId = resource.job.id;
  return useMemo(() => {
    const known = new Set(resource.entries.map((entry) => entry.id));
    const local = waiting
      .filter((each) => each.refused === null && !known.has(each.id))
      .map((each) => ({ ...each.entry, jobId, sequence: null, recordedAt: null, counter: null }));
    return [...resource.entries, ...local];
  }, [resource.entries, waiting, jobId]);
}

/** The judge of the server, asked here first. */
function useRefusalOf(
  technicianId: string | null,
  shop: SeenShop,
  { jobId, state, entries, lots, context }: Parameters<typeof refusalHere>[1],
): OpenJob['refusalOf'] {
  const { name } = useBench();
  return useCallback<OpenJob['refusalOf']>(
    (kind, payload, options = {}) => {
      if (technicianId === null) return null;
      const made = makeEntry(kind, payload, {
        id: v7(),
        occurredAt: shopNow(shop),
        technicianId,
        bench: name,
        ...options,
      });
      return refusalHere(made, { jobId, state, entries, lots, context });
    },
    [technicianId, shop, name, jobId, state, entries, lots, context],
  );
}

/** Folds the job from what the server has and what still waits here, and offers it to the stages. */
export function JobProvider({ resource, shop, book, stock, children }: Props) {
  const bench = useBench();
  const waitingState = useWaiting();
  const { draft, setDraft, setWellDraft } = useDrafts();
  const jobId = resource.job.id;
  const waiting = useMemo(
    () => waitingState.entries.filter((each) => each.jobId === jobId),
    [waitingState.entries, jobId],
  );
  const context = useMemo<FoldContext>(
    () => ({ catalogue: book, policy: shop.policy, shop: shop.shop, nowUtc: shopNow(shop) }),
    [book, shop],
  );
  const entries = useEntries(resource, waiting);
  const state = useMemo(() => foldJob(entries, context), [entries, context]);
  const { watch: earlier } = useWatchHistory(resource.job.watchId, book, shop, jobId);
  const technician = shop.technicians.find((each) => each.id === bench.technicianId) ?? null;

  const recorder = useRecorder(shop);
  const record = useCallback<OpenJob['record']>(
    (kind, payload, options) => recorder(jobId, kind, payload, options),
    [recorder, jobId],
  );

  const lots = useMemo(() => lotsOf(stock, resource), [stock, resource]);
  const technicianId = technician?.id ?? null;
  const refusalOf = useRefusalOf(technicianId, shop, { jobId, state, entries, lots, context });
  const suppliers = 'suppliers' in stock ? stock.suppliers : NO_SUPPLIERS;
  const asks = useCallback(
    (requirement: Requirement) => state.required.includes(requirement),
    [state.required],
  );

  const value = useMemo<OpenJob>(
    () => ({
      resource,
      state,
      entries,
      context,
      book,
      lots,
      suppliers,
      technicians: shop.technicians,
      technician,
      earlier,
      asks,
      today: localDay(context.nowUtc, shop.shop.zone),
      waiting,
      record,
      refusalOf,
      draft,
      setDraft,
      setWellDraft,
    }),
    [
      resource,
      state,
      entries,
      context,
      book,
      lots,
      suppliers,
      shop,
      technician,
      earlier,
      asks,
      waiting,
      record,
      refusalOf,
      draft,
      setDraft,
      setWellDraft,
    ],
  );
  return <Context value={value}>{children}</Context>;
}
