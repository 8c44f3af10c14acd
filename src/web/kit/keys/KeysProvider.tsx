import {
  createContext,
  type ReactNode,
  type RefObject,
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
import { dialogOpen, type KeyActions, listenToKeys, type TextField } from './listening';
import { focusNextRequired, giveToNextMeasure, isFigure, setFieldValue } from './required';

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

/** The keys bound now, and who makes something of what a device types. */
function useRegistered() {
  const [actions, setActions] = useState<readonly KeyAction[]>([]);
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
  return { actions, current, register, readScans, scanned };
}

/** Opens the job of a ticket that was read. */
function useOpenTicket(openFind: (text: string | null) => void): (ticket: string) => Promise<void> {
  const navigate = useNavigate();
  const { enqueueSnackbar } = useSnackbar();
  return useCallback(
    async (ticket: string) => {
      try {
        const { jobId } = await getJson<{ jobId: string }>(`/api/tickets/${ticket}`);
        openFind(null);
        await navigate(`/jobs/${jobId}`);
      } catch (error) {
        enqueueSnackbar(
          error instanceof Refused
            ? `No job has ticket ${ticket}.`
            : failedInWords(error, 'the ticket cannot be searched.'),
          {
            variant: 'error',
          },
        );
      }
    },
    [navigate, enqueueSnackbar, openFind],
  );
}

/** A figure that nothing wants is shown, and offered: for the field somebody was in, or to be searched for. */
function useOffer(openFind: (text: string | null) => void): (text: string, field: TextField | null) => void {
  const { enqueueSnackbar, closeSnackbar } = useSnackbar();
  return useCallback(
    (text: string, field: TextField | null) => {
      enqueueSnackbar(`${text} was scanned, but no field here takes it.`, {
        action: (key) => (
          <Button
            color="inherit"
            onClick={() => {
              closeSnackbar(key);
              if (field === null) openFind(text);
              else setFieldValue(field, text);
            }}
          >
            {field === null ? 'Search' : 'Enter in the last field'}
          </Button>
        ),
      });
    },
    [enqueueSnackbar, closeSnackbar, openFind],
  );
}

/** KeyActions the keyboard for as long as the page stands. */
function useListening(
  takeFromDevice: KeyActions['takeFromDevice'],
  current: RefObject<readonly KeyAction[]>,
  scanned: (text: string) => (() => void) | null,
): void {
  const { singleKeys } = useBench();
  const latest = useRef({ takeFromDevice, singleKeys });
  useEffect(() => {
    latest.current = { takeFromDevice, singleKeys };
  }, [takeFromDevice, singleKeys]);
  useEffect(
    () =>
      listenToKeys({
        takeFromDevice: (text, field) => latest.current.takeFromDevice(text, field),
        isScan: (text) => scanned(text) !== null,
        press: (key) => current.current.findLast((action) => action.key === key)?.run(),
        singleKeys: () => latest.current.singleKeys,
      }),
    [scanned, current],
  );
}

/** Listens to the keyboard as a whole: single keys of a hand are shortcuts, bursts of a device are figures or tickets. */
export function KeysProvider({ children }: { readonly children: ReactNode }) {
  const [findOpen, openFind] = useState<string | null>(null);
  const { enqueueSnackbar } = useSnackbar();
  const { actions, current, register, readScans, scanned } = useRegistered();
  const openTicket = useOpenTicket(openFind);
  const offer = useOffer(openFind);

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

  useListening(takeFromDevice, current, scanned);

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
  useKey('m', 'Go to the next required field', () => focusNextRequired());
  return null;
}
