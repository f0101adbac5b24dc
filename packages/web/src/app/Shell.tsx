import { useCallback, useEffect, useState } from 'react';
import { Outlet, useNavigate } from 'react-router';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { emptyBench } from '@zb/core/model/bench';
import { differences } from '@zb/core/model/changes';
import { typing, useKeys } from '../parts/useKeys';
import { useHealth } from '../parts/writer';
import { WriteRecorder } from '../parts/WriteRecorder';
import { useBenchQuery, useNotice, useStore } from '../storage/hooks';
import { UnreadableBench } from '../storage/keeper';
import { AREAS } from './areas';
import { setTheme, themeChoice, type ThemeChoice } from './colour';
import { Find } from './Find';
import { Keys } from './Keys';
import { Notices } from './Notices';
import { Opening } from './Opening';
import { Rail } from './Rail';
import { Unreadable } from './Unreadable';

const DEMO_LINE = 'zb-demo-line';
const remembered = (key: string): string | null => {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
};
const remember = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Only a convenience is lost.
  }
};

/** Rail, notices and the place for a sheet; loads the bench, and the demo into an empty browser in demo mode. */
export function Shell() {
  const store = useStore();
  const { bench, isPending, error } = useBenchQuery();
  const { status, pending, unsaved } = useNotice();
  const health = useHealth();
  const [finding, setFinding] = useState(false);
  const [helping, setHelping] = useState(false);
  const [theme, pickTheme] = useState<ThemeChoice>(themeChoice);
  const [demoLine, setDemoLine] = useState(remembered(DEMO_LINE) !== 'hidden');
  const go = useNavigate();

  useKeys({
    ...Object.fromEntries(AREAS.map((a) => [a.key, () => void go(a.path)])),
    '/': () => setFinding(true),
    '?': () => setHelping(true),
  });
  useEffect(() => {
    const on = (e: KeyboardEvent): void => {
      if ((e.ctrlKey || e.metaKey) && !e.shiftKey && e.key.toLowerCase() === 'z' && !typing(e.target)) {
        e.preventDefault();
        void store.undo();
      }
    };
    window.addEventListener('keydown', on);
    return () => window.removeEventListener('keydown', on);
  }, [store]);

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
    (asked: boolean) => {
      const first = isDemoServer ? saltmarshHall() : emptyBench();
      const changes = differences(emptyBench(''), first);
      return store.begin({ label: isDemoServer ? 'Demo bench loaded' : 'Empty bench begun', changes }, asked);
    },
    [store, isDemoServer],
  );
  useEffect(() => {
    if (fresh && !health.isPending) void begin(false);
  }, [fresh, health.isPending, begin]);

  if (error instanceof UnreadableBench) return <Unreadable fault={error} />;
  if (error) throw error;
  if (!bench) return <Opening demo={isDemoServer} onBegin={() => void begin(true)} />;

  const startEmpty = (): void => {
    void store.perform({ label: 'Empty bench begun', changes: differences(bench, emptyBench()) });
    void go('/shelf');
  };
  const nextTheme = (): void => {
    const next = theme === 'system' ? 'light' : theme === 'light' ? 'dark' : 'system';
    setTheme(next);
    pickTheme(next);
  };
  const isDemo = isDemoServer && bench.name === 'Saltmarsh Hall';
  return (
    <div className="shell">
      <a className="skip" href="#sheet">
        To the sheet
      </a>
      <Rail
        bench={bench}
        status={status}
        saving={pending > 0}
        theme={theme}
        onTheme={nextTheme}
        onHelp={() => setHelping(true)}
        onFind={() => setFinding(true)}
        onUndo={() => void store.undo()}
      />
      <Notices
        bench={bench}
        demoShown={isDemo && demoLine}
        onDismissDemo={() => {
          setDemoLine(false);
          remember(DEMO_LINE, 'hidden');
        }}
        onEmpty={startEmpty}
      />
      <Outlet />
      <WriteRecorder bench={bench} />
      <Find bench={bench} open={finding} onClose={() => setFinding(false)} />
      <Keys open={helping} onClose={() => setHelping(false)} />
    </div>
  );
}
