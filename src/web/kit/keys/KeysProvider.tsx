import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { Button } from '@mui/material';
import { useNavigate } from 'react-router';
import { useSnackbar } from 'notistack';
import { readTicket } from '../../../core/craft/tickets';
import { readQuantity } from '../../../core/craft/units';
import { useBench } from '../../api/bench';
import { failedInWords, getJson, Refused } from '../../api/http';
import { giveTyped } from '../../api/drivers/typed';
import { BurstReader, settleMs } from './burst';
import { pickChoice } from './choices';
import {
  focusNextRequired,
  giveToNextMeasure,
  handMoved,
  isField,
  isFigure,
  isStrayEnter,
  setFieldValue,
  wants,
} from './required';

export interface KeyAction {
  readonly key: string;
  readonly label: string;
  readonly run: () => void;
}

/** What a view makes of what a device typed: what to do with it, or null where it is not for this view. */
export type ScanReader = (text: string) => (() => void) | null;

interface Keys {
  readonly actions: readonly KeyAction[];
  readonly register: (action: KeyAction) => () => void;
  readonly readScans: (reader: ScanReader) => () => void;
  readonly findOpen: string | null;
  readonly openFind: (text: string | null) => void;
}

const Context = createContext<Keys | null>(null);

export function useKeys(): Keys {
  const keys = useContext(Context);
  if (!keys) throw new Error('No keys are provided here.');
  return keys;
}

/** Binds a single key while the component stands; listed in the overlay under its label. */
export function useKey(key: string, label: string, run: () => void): void {
  const { register } = useKeys();
  const latest = useRef(run);
  // With the screen, not after it: a key does what stands beside it now.
  useLayoutEffect(() => {
    latest.current = run;
  });
  useLayoutEffect(() => register({ key, label, run: () => latest.current() }), [key, label, register]);
}

/** Offers what a device types to this view first, while it stands: anything but a ticket. */
export function useScan(reader: ScanReader): void {
  const { readScans } = useKeys();
  const latest = useRef(reader);
  useEffect(() => {
    latest.current = reader;
  });
  useEffect(() => readScans((text) => latest.current(text)), [readScans]);
}

type TextField = HTMLInputElement | HTMLTextAreaElement;

function dialogOpen(): boolean {
  return document.querySelector('[role="dialog"]') !== null;
}

/** Whether keys were pressed that the page has not been given yet, where the browser can tell. */
function keysPending(): boolean {
  const { scheduling } = navigator as Navigator & {
    readonly scheduling?: { readonly isInputPending?: () => boolean };
  };
  return scheduling?.isInputPending?.() ?? false;
}

/** Listens to the keyboard as a whole: single keys of a hand are shortcuts, bursts of a device are figures or tickets. */
export function KeysProvider({ children }: { readonly children: ReactNode }) {
  const [actions, setActions] = useState<readonly KeyAction[]>([]);
  const [findOpen, openFind] = useState<string | null>(null);
  const navigate = useNavigate();
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  const bench = useBench();
  /** The same as the keys hear it, at once. */
  const current = useRef<readonly KeyAction[]>([]);
  const register = useCallback((action: KeyAction) => {
    const change = (next: readonly KeyAction[]): void => {
      current.current = next;
      setActions(next);
    };
    change([...current.current, action]);
    return () => change(current.current.filter((each) => each !== action));
  }, []);

  const scanReaders = useRef<readonly ScanReader[]>([]);
  const readScans = useCallback((reader: ScanReader) => {
    scanReaders.current = [...scanReaders.current, reader];
    return () => {
      scanReaders.current = scanReaders.current.filter((each) => each !== reader);
    };
  }, []);
  /** What the view that stands makes of it; nothing while a dialog lies over it. */
  const scanned = useCallback(
    (text: string): (() => void) | null =>
      dialogOpen()
        ? null
        : scanReaders.current.reduceRight<(() => void) | null>((made, read) => made ?? read(text), null),
    [],
  );

  const openTicket = useCallback(
    async (ticket: string) => {
      try {
        const { jobId } = await getJson<{ jobId: string }>(`/api/tickets/${ticket}`);
        openFind(null);
        await navigate(`/jobs/${jobId}`);
      } catch (error) {
        enqueueSnackbar(
          error instanceof Refused
            ? `No job has ticket ${ticket}.`
            : failedInWords(error, 'the ticket cannot be looked up.'),
          {
            variant: 'error',
          },
        );
      }
    },
    [navigate, enqueueSnackbar],
  );

  /** A figure that nothing wants is shown, and offered: for the field somebody was in, or to be searched for. */
  const offer = useCallback(
    (text: string, field: TextField | null) => {
      enqueueSnackbar(`${text} was read, and nothing here wants it.`, {
        action: (key) => (
          <Button
            color="inherit"
            onClick={() => {
              closeSnackbar(key);
              if (field === null) openFind(text);
              else setFieldValue(field, text);
            }}
          >
            {field === null ? 'Find it' : 'Put it where I was'}
          </Button>
        ),
      });
    },
    [enqueueSnackbar, closeSnackbar],
  );

  const takeFromDevice = useCallback(
    (text: string, field: TextField | null = null) => {
      if (giveTyped(text)) return;
      const ticket = readTicket(text);
      if (ticket.verdict === 'ticket') return void openTicket(ticket.ticket);
      if (ticket.verdict === 'misread') return void enqueueSnackbar(ticket.reason, { variant: 'error' });
      const take = scanned(text);
      if (take !== null) return void take();
      const isNumber = /^[+-]?[\d.,]/.test(text.trim()) && readQuantity(text, 'lengthMm').verdict === 'read';
      if (isNumber || isFigure(text)) {
        // What lies behind a dialog is not what somebody looks at.
        if (dialogOpen() || !giveToNextMeasure(text)) offer(text, field);
        return;
      }
      openFind(text);
    },
    [openTicket, enqueueSnackbar, scanned, offer],
  );

  // The listener stays the same for the page's life: set up anew in the middle of a burst it would lose keys.
  const latest = useRef({ takeFromDevice, singleKeys: bench.singleKeys });
  useEffect(() => {
    latest.current = { takeFromDevice, singleKeys: bench.singleKeys };
  }, [takeFromDevice, bench.singleKeys]);

  useEffect(() => {
    const reader = new BurstReader();
    let settle: ReturnType<typeof setTimeout> | undefined;
    /** Whether the run that is not over yet was typed into a field. */
    let runInField = false;
    let fieldBefore: { field: TextField; value: string } | null = null;

    const act = (runs: ReturnType<BurstReader['end']>, inField: boolean): void => {
      for (const run of runs) {
        if (inField) continue;
        if (run.from === 'device') latest.current.takeFromDevice(run.text);
        else if (latest.current.singleKeys && !dialogOpen() && !pickChoice(run.key)) {
          current.current.findLast((action) => action.key === run.key)?.run();
        }
      }
    };
    const onKeyDown = (event: KeyboardEvent): void => {
      // A key held down repeats as fast as a device types, and a composed letter is not finished yet.
      if (event.isComposing) return;
      // Held down, or pressed once too often: an Enter that still comes once the focus has gone on decides nothing there.
      if (event.key === 'Enter' && (event.repeat || isStrayEnter()) && !dialogOpen()) {
        reader.end();
        event.preventDefault();
        event.stopPropagation();
        return;
      }
      if (event.repeat) return;
      if (event.key !== 'Enter') handMoved();
      const field = isField(event.target) ? event.target : null;
      if (event.key === 'Escape' && field && !dialogOpen()) {
        field.blur();
        return;
      }
      if (event.key === 'Enter') {
        clearTimeout(settle);
        const wasDevice = reader.looksLikeDevice;
        const runs = reader.end();
        const run = runs[0];
        if (wasDevice && run?.from === 'device') {
          const ticket = readTicket(run.text);
          // A measure that is filled in already is not written on: the figure is for the next one.
          const behind = field?.dataset.measure !== undefined && field.value !== run.text;
          const lost = field !== null && isFigure(run.text) && !wants(field, run.text);
          if (!field || behind || lost || ticket.verdict !== 'not a ticket' || scanned(run.text) !== null) {
            event.preventDefault();
            event.stopPropagation();
            if (field && fieldBefore?.field === field) setFieldValue(field, fieldBefore.value);
            latest.current.takeFromDevice(run.text, lost && fieldBefore ? fieldBefore.field : null);
          }
        } else act(runs, runInField);
        return;
      }
      if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
      clearTimeout(settle);
      const inField = field !== null;
      const earlier = reader.press(event.key, event.timeStamp);
      act(earlier, runInField);
      runInField = inField;
      if (earlier.length > 0 || !reader.looksLikeDevice) {
        fieldBefore =
          field instanceof HTMLInputElement || field instanceof HTMLTextAreaElement
            ? { field, value: field.value }
            : null;
      }
      // A space in the middle of what a device types would press the button that has the focus.
      if (!field && (event.key === '/' || (event.key === ' ' && reader.looksLikeDevice)))
        event.preventDefault();
      // In a field no key is a shortcut: the run ends by the times of its keys alone, however late they are handed over.
      if (inField) return;
      const wait = settleMs(event.key, reader.looksLikeDevice);
      const silent = (): void => {
        // Keys that were pressed in time may lie behind what keeps the page busy.
        if (keysPending()) settle = setTimeout(silent, wait);
        else act(reader.settle(), false);
      };
      settle = setTimeout(silent, wait);
    };
    window.addEventListener('keydown', onKeyDown, true);
    window.addEventListener('pointerdown', handMoved, true);
    return () => {
      window.removeEventListener('pointerdown', handMoved, true);
      window.removeEventListener('keydown', onKeyDown, true);
      clearTimeout(settle);
    };
  }, [scanned]);

  const value = useMemo(
    () => ({ actions, register, readScans, findOpen, openFind }),
    [actions, register, readScans, findOpen],
  );
  return (
    <Context value={value}>
      {children}
      <GeneralKeys />
    </Context>
  );
}

/** The keys that hold everywhere. */
function GeneralKeys() {
  const { openFind } = useKeys();
  const navigate = useNavigate();
  useKey('/', 'Find a job, watch, owner or cell', () => openFind(''));
  useKey('n', 'New job', () => void navigate('/new'));
  useKey('m', 'To the next measure or fact still wanted', () => focusNextRequired());
  return null;
}
