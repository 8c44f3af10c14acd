import MenuIcon from '@mui/icons-material/Menu';
import {
  Box,
  Button,
  Drawer,
  IconButton,
  LinearProgress,
  Stack,
  Typography,
  useMediaQuery,
} from '@mui/material';
import { lazy, type ReactNode, Suspense, useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { useBench } from '../api/bench';
import { useShop } from '../api/resources';
import { useWaiting } from '../api/waiting';
import { useKey, useKeys } from '../kit/keys/KeysProvider';
import { NeedsYou } from './NeedsYou';
import { Rack } from './Rack';
import { colours } from '../kit/theme';
import { SHOP_PAGES } from './shopPages';
import { WhoIsHere } from './WhoIsHere';

const loadFind = () => import('./FindDialog');
const loadKeys = () => import('../kit/keys/KeysOverlay');
const loadMenu = () => import('./ShopMenu');
const FindDialog = lazy(loadFind);
const ShopMenu = lazy(loadMenu);
const KeysOverlay = lazy(loadKeys);

/** Fetches what the first screen opens or shows after its first look, so that it is there when the server is away. */
export const fetchDialogs = (): readonly Promise<unknown>[] => [
  loadFind(),
  loadKeys(),
  loadMenu(),
  import('../pages/RemindersDue'),
  import('../job/RunsDue'),
  import('./NeedsYouDialog'),
];

const RACK_PX = { md: 224, lg: 262 } as const;

/** Entries are on record within a moment as a rule: what takes no longer moves nothing on the screen. */
const MOMENT_MS = 700;

/** A quiet line on what is not on record yet. */
function SavingLine() {
  const { entries, away, awaySays, onlyInMemory } = useWaiting();
  const waiting = entries.filter((entry) => entry.refused === null).length;
  const words = [
    away ? (awaySays ?? 'The server is away.') : '',
    waiting > 0
      ? `${waiting} ${waiting === 1 ? 'entry is' : 'entries are'} stored in this browser and not sent yet.`
      : '',
    onlyInMemory ? 'This browser cannot store them. Do not reload this page.' : '',
  ]
    .filter(Boolean)
    .join(' ');
  return words === '' ? null : <AfterAMoment words={words} atOnce={away || onlyInMemory} />;
}

/** Once it was said it stands until nothing is left to say: entries still on their way are not on record yet. */
function AfterAMoment({ words, atOnce }: { readonly words: string; readonly atOnce: boolean }) {
  const [said, setSaid] = useState(atOnce);
  if (atOnce && !said) setSaid(true);
  useEffect(() => {
    const timer = setTimeout(() => setSaid(true), MOMENT_MS);
    return () => clearTimeout(timer);
  }, []);
  return said || atOnce ? <QuietLine words={words} /> : null;
}

function QuietLine({ words }: { readonly words: string }) {
  return (
    <Box role="status" sx={{ bgcolor: colours.soot, color: colours.tallow, px: 2, py: 0.5 }}>
      <Typography variant="body2">{words}</Typography>
    </Box>
  );
}

/** The pages behind the counter: in the head, or under the rack where the head has no room. */
function ShopLinks({ onPick }: { readonly onPick?: () => void }) {
  return SHOP_PAGES.map(([to, words]) => (
    <Button key={to} component={Link} to={to} {...(onPick ? { onClick: onPick } : {})}>
      {words}
    </Button>
  ));
}

/** The same in a menu, where the head has no room for all of them side by side. */
function ShopMenuButton() {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const [wasOpened, setWasOpened] = useState(false);
  return (
    <>
      <Button
        aria-haspopup="menu"
        aria-expanded={at !== null}
        onClick={(event) => {
          setWasOpened(true);
          setAt(event.currentTarget);
        }}
        sx={{ whiteSpace: 'nowrap' }}
      >
        Shop
      </Button>
      {wasOpened && (
        <Suspense>
          <ShopMenu at={at} onClose={() => setAt(null)} />
        </Suspense>
      )}
    </>
  );
}

function Brand() {
  return (
    <Stack
      component={Link}
      to="/"
      direction="row"
      spacing={1}
      sx={{
        alignItems: 'center',
        color: 'text.primary',
        textDecoration: 'none',
        minHeight: 44,
        flexShrink: 0,
      }}
    >
      <Box component="img" src="/lantern.svg" alt="" sx={{ width: 28, height: 28 }} />
      <Typography
        component="span"
        noWrap
        sx={{ fontWeight: 700, fontSize: '1.15rem', display: { xs: 'none', sm: 'inline' }, flexShrink: 0 }}
      >
        Wax Lantern
      </Typography>
    </Stack>
  );
}

function Head({ onRack }: { readonly onRack: (() => void) | null }) {
  const { data: shop } = useShop();
  const { openFind } = useKeys();
  const bench = useBench();
  const [keysOpen, setKeysOpen] = useState(false);
  const [whoOpen, setWhoOpen] = useState(false);
  const roomForAll = useMediaQuery('(min-width:1240px)');
  useKey('?', 'Show the keys', () => setKeysOpen(true));
  const technician = shop?.technicians.find((each) => each.id === bench.technicianId);
  return (
    <Stack
      component="header"
      direction="row"
      spacing={0.5}
      sx={{
        alignItems: 'center',
        px: { xs: 1, sm: 2 },
        py: 0.5,
        borderBottom: `2px solid ${colours.soot}`,
        bgcolor: colours.tallow,
      }}
    >
      {onRack && (
        <IconButton onClick={onRack} aria-label="Show the rack">
          <MenuIcon />
        </IconButton>
      )}
      <Brand />
      <Typography
        color="text.secondary"
        noWrap
        sx={{ flexGrow: 1, pl: 1, display: { xs: 'none', md: 'block' } }}
      >
        {shop ? shop.shop.name : ''}
        {shop?.demo ? ', made-up demo' : ''}
      </Typography>
      <Box sx={{ flexGrow: 1, display: { md: 'none' } }} />
      <NeedsYou />
      <Button component={Link} to="/new" variant="contained" sx={{ flexShrink: 0 }}>
        New job
      </Button>
      <Button onClick={() => openFind('')}>Find</Button>
      {onRack === null && (roomForAll ? <ShopLinks /> : <ShopMenuButton />)}
      <Button
        onClick={() => setKeysOpen(true)}
        aria-label="Keys"
        sx={{ minWidth: 44, display: { xs: 'none', sm: 'inline-flex' } }}
      >
        ?
      </Button>
      <Button
        variant="outlined"
        onClick={() => setWhoOpen(true)}
        aria-label={
          technician
            ? `${technician.initials}, at the bench: ${technician.name}. Change`
            : 'Choose who is at the bench'
        }
      >
        {technician?.initials ?? 'Who?'}
      </Button>
      {keysOpen && (
        <Suspense>
          <KeysOverlay open onClose={() => setKeysOpen(false)} />
        </Suspense>
      )}
      {shop && (
        <WhoIsHere
          open={whoOpen || technician === undefined}
          technicians={shop.technicians}
          onClose={() => setWhoOpen(false)}
          mustPick={technician === undefined}
        />
      )}
    </Stack>
  );
}

/** The bench: head, rack on the left, and what is open beside it. On a narrow screen the rack is a drawer. */
export function Shell({ children }: { readonly children: ReactNode }) {
  const wide = useMediaQuery('(min-width:900px)');
  const [rackOpen, setRackOpen] = useState(false);
  const { findOpen, openFind } = useKeys();
  const { pathname } = useLocation();
  const closeRack = (): void => setRackOpen(false);
  return (
    <Box sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column' }}>
      <Head onRack={wide ? null : () => setRackOpen(true)} />
      <SavingLine />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: wide
            ? { md: `${RACK_PX.md}px minmax(0, 1fr)`, lg: `${RACK_PX.lg}px minmax(0, 1fr)` }
            : 'minmax(0, 1fr)',
          flexGrow: 1,
          '@media print': { display: 'block' },
        }}
      >
        {wide ? (
          <Box
            sx={{
              '@media print': { display: 'none' },
              borderRight: `1px solid ${colours.thread}`,
              position: 'sticky',
              top: 0,
              alignSelf: 'start',
              height: 'calc(100dvh - 58px)',
            }}
          >
            <Rack onPick={closeRack} />
          </Box>
        ) : (
          <Drawer
            open={rackOpen}
            onClose={closeRack}
            slotProps={{ paper: { sx: { width: 300, bgcolor: colours.tallow } } }}
          >
            <Box sx={{ flexGrow: 1, minHeight: 0 }}>
              <Rack onPick={closeRack} />
            </Box>
            <Stack component="nav" aria-label="Shop" direction="row" sx={{ px: 1, flexWrap: 'wrap' }}>
              <ShopLinks onPick={closeRack} />
            </Stack>
          </Drawer>
        )}
        <Box
          component="main"
          id="mat"
          key={pathname.split('/').slice(0, 3).join('/')}
          sx={{ p: { xs: 1.5, sm: 2 }, minWidth: 0 }}
        >
          <Suspense fallback={<LinearProgress aria-label="Loading" />}>{children}</Suspense>
        </Box>
      </Box>
      {findOpen !== null && (
        <Suspense>
          <FindDialog start={findOpen} onClose={() => openFind(null)} />
        </Suspense>
      )}
    </Box>
  );
}
