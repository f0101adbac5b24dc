import { Box, IconButton as MenuButton, SkipNavLink } from '@chakra-ui/react';
import { Menu, Search } from 'lucide-react';
import { lazy, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Outlet, useLocation, useMatch, useNavigate } from 'react-router';
import { emptyBench } from '@zb/core/model/bench';
import { differences, replaced } from '@zb/core/model/changes';
import { Patterns } from '../drawing/patterns';
import { Shortcuts } from '../parts/Shortcuts';
import { BarContext } from '../parts/slots';
import { onFollowed } from '../parts/systemNotice';
import { useHealth, useJobs } from '../parts/writer';
import { useBenchQuery, useNotice, useStore } from '../storage/hooks';
import { UnreadableBench } from '../storage/keeper';
import { recall, remember } from '../storage/remembered';
import { IconButton } from '../ui/IconButton';
import { useNarrow } from '../ui/useMedia';
import { AREAS } from './areas';
import { setTheme, themeChoice, type ThemeChoice } from './colour';
import { Notices } from './Notices';
import { Opening, SheetShape } from './Opening';
import { Rail } from './Rail';
import { Unreadable } from './Unreadable';
import { useNewer } from './useNewer';
import { useTyped } from './useTyped';

const Drawer = lazy(() => import('../ui/Drawer'));
const Keys = lazy(() => import('./Keys'));
const Find = lazy(() => import('./Find'));
const WriteRecorder = lazy(() => import('../parts/WriteRecorder'));
const SaidActs = lazy(() => import('./SaidActs'));

const DEMO_LINE = 'zb-demo-line';
/** The line above the sheet where there is no room for the rail: the way to it, whose sheet it is, what the ledger holds. */
function Bar({
  onTitle,
  onLedger,
  onRail,
  onFind,
}: {
  onTitle: (el: HTMLElement | null) => void;
  onLedger: (el: HTMLElement | null) => void;
  onRail: () => void;
  onFind: () => void;
}) {
  return (
    <Box
      as="header"
      gridArea="bar"
      display="flex"
      alignItems="center"
      gap="1"
      minHeight="bar"
      paddingInline="1"
      borderBottom="firm"
      minWidth="0"
      _print={{ display: 'none' }}
    >
      <MenuButton aria-label="Areas and boxes" variant="bare" color="fg" boxSize="touch" onClick={onRail}>
        <Menu />
      </MenuButton>
      <Box ref={onTitle} display="flex" alignItems="baseline" gap="2" flex="1" minWidth="0" />
      <Box ref={onLedger} flexShrink="0" />
      <IconButton
        word="Find anything"
        variant="bare"
        color="fg"
        boxSize="touch"
        icon={<Search />}
        onClick={onFind}
      />
    </Box>
  );
}

const WITH_RAIL = {
  gridTemplateColumns: {
    base: 'minmax(0, 1fr)',
    md: 'minmax(0, 1fr) 270px',
    lg: '{sizes.rail} minmax(0, 1fr) {sizes.ledger}',
    wide: '236px minmax(0, 1fr) 360px',
  },
  gridTemplateRows: { base: 'auto auto minmax(0, 1fr) auto', lg: 'auto minmax(0, 1fr) auto' },
  gridTemplateAreas: {
    base: '"bar" "notices" "sheet" "route"',
    md: '"bar bar" "notices notices" "sheet ledger" "route route"',
    lg: '"rail notices notices" "rail sheet ledger" "rail route route"',
  },
};
const ALONE = {
  gridTemplateColumns: { base: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 300px', lg: 'minmax(0, 1fr) 380px' },
  gridTemplateRows: { base: 'auto minmax(0, 1fr) auto', md: 'auto minmax(0, 1fr) auto' },
  gridTemplateAreas: {
    base: '"notices" "sheet" "route"',
    md: '"notices notices" "sheet ledger" "route route"',
  },
};

/** Rail, notices and the place for a sheet; loads the bench, and the demo into an empty browser in demo mode. */
export function Shell() {
  const store = useStore();
  const { bench, isPending, error } = useBenchQuery();
  const { pending, unsaved, said } = useNotice();
  const health = useHealth();
  const jobs = useJobs();
  const narrow = useNarrow();
  const [finding, setFinding] = useState(false);
  const [helping, setHelping] = useState(false);
  const [railAt, setRailAt] = useState<string | null>(null);
  const [theme, pickTheme] = useState<ThemeChoice>(themeChoice);
  const [demoLine, setDemoLine] = useState(recall(DEMO_LINE) !== 'hidden');
  const [title, setTitle] = useState<HTMLElement | null>(null);
  const [ledger, setLedger] = useState<HTMLElement | null>(null);
  const slots = useMemo(() => ({ title, ledger }), [title, ledger]);
  const typed = useTyped(finding);
  const newer = useNewer();
  const go = useNavigate();
  const { pathname } = useLocation();
  // A notice may be followed when what it told of is long done.
  useEffect(() => onFollowed((to) => void go(to)), [go]);
  // Beside an open machine there is one step, and nothing else to press by mistake.
  const running = useMatch('/box/:boxId/run') !== null;

  // Leaving with something not kept yet is asked about, never silent.
  const atRisk = pending > 0 || unsaved.length > 0;
  useEffect(() => {
    if (!atRisk) return undefined;
    const ask = (e: BeforeUnloadEvent): void => e.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [atRisk]);

  const fresh = !isPending && bench === null;
  const isDemoServer = health.data?.demo === true;
  const begin = useCallback(
    async (asked: boolean) => {
      const first = isDemoServer ? (await import('@zb/core/demo/saltmarsh')).saltmarshHall() : emptyBench();
      const changes = differences(emptyBench(''), first);
      return store.begin({ label: isDemoServer ? 'Demo bench loaded' : 'Empty bench begun', changes }, asked);
    },
    [store, isDemoServer],
  );
  useEffect(() => {
    if (fresh && !health.isPending) void begin(false);
  }, [fresh, health.isPending, begin]);

  // The first drawing of a bench is long: it is done in turns, so that the page stays quick; later ones are done at once.
  const begun = useDeferredValue(bench !== undefined && bench !== null, false);

  if (error instanceof UnreadableBench) return <Unreadable fault={error} />;
  if (error) throw error;
  if (!bench || !begun) return <Opening demo={isDemoServer} onBegin={() => void begin(true)} />;

  const startEmpty = (): void => {
    void store.perform(replaced('Empty bench begun', bench, emptyBench()));
    void go('/shelf');
  };
  const nextTheme = (): void => {
    const next = theme === 'system' ? 'light' : theme === 'light' ? 'dark' : 'system';
    setTheme(next);
    pickTheme(next);
  };
  const isDemo = isDemoServer && bench.name === 'Saltmarsh Hall';
  const rail = (
    <Rail
      bench={bench}
      theme={theme}
      onTheme={nextTheme}
      onHelp={() => setHelping(true)}
      onFind={() => setFinding(true)}
      onUndo={() => void store.undo()}
    />
  );
  return (
    <BarContext.Provider value={slots}>
      <Box
        data-part="shell"
        data-saving={pending > 0}
        display="grid"
        height="page"
        overflow="hidden"
        _print={{ display: 'block', height: 'auto', overflow: 'visible' }}
        css={running ? ALONE : WITH_RAIL}
      >
        <SkipNavLink id="sheet">To the sheet</SkipNavLink>
        <Patterns />
        <Shortcuts
          list={[
            ...(running
              ? []
              : [
                  ...AREAS.map((a) => ({ keys: a.key, does: `to ${a.title}`, act: () => void go(a.path) })),
                  { keys: '/', does: 'find anything', act: () => setFinding(true) },
                ]),
            { keys: '?', does: 'this sheet of keys', act: () => setHelping(true) },
            { keys: 'mod+z', does: 'take the last act back', act: () => void store.undo() },
          ]}
        />
        {running ? null : narrow ? (
          <>
            <Bar
              onTitle={setTitle}
              onLedger={setLedger}
              onRail={() => setRailAt(pathname)}
              onFind={() => setFinding(true)}
            />
            {/* Open on the address it was opened at: whoever goes somewhere else wants to see that. */}
            <Suspense fallback={null}>
              {railAt === pathname && (
                <Drawer open onClose={() => setRailAt(null)} title="Areas and boxes">
                  {rail}
                </Drawer>
              )}
            </Suspense>
          </>
        ) : (
          <Box gridArea="rail" minHeight="0" position="relative">
            {rail}
          </Box>
        )}
        <Notices
          bench={bench}
          demoShown={isDemo && demoLine}
          newer={newer}
          onDismissDemo={() => {
            setDemoLine(false);
            remember(DEMO_LINE, 'hidden');
          }}
          onEmpty={startEmpty}
        />
        <Suspense fallback={<SheetShape />}>
          <Outlet />
        </Suspense>
        {jobs.data !== undefined && jobs.data.length > 0 && (
          <Suspense fallback={null}>
            <WriteRecorder bench={bench} />
          </Suspense>
        )}
        <Suspense fallback={null}>
          {finding && <Find bench={bench} typed={typed} onClose={() => setFinding(false)} />}
        </Suspense>
        <Suspense fallback={null}>{said > 0 && <SaidActs />}</Suspense>
        <Suspense fallback={null}>{helping && <Keys onClose={() => setHelping(false)} />}</Suspense>
      </Box>
    </BarContext.Provider>
  );
}
