import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import type { ComponentType } from 'react';
import { currentStop } from '@zb/core/traveller/route';
import { useBench } from '../storage/hooks';
import { ErrorPage } from './Errors';
import { Shell } from './Shell';

const loaders: (() => Promise<{ default: ComponentType }>)[] = [];
const page = (load: () => Promise<{ default: ComponentType }>): Pick<RouteObject, 'lazy'> => {
  loaders.push(load);
  return { lazy: async () => ({ Component: (await load()).default }) };
};

/** Fetches the other screens once the first one stands, so that the bench goes on when the server is gone. */
export async function fetchOtherScreens(): Promise<void> {
  for (const load of loaders) await load().catch(() => undefined);
}

/** Where to land: the first box that has a machine and work left, else the shelf. */
function Home() {
  const bench = useBench();
  const box = bench.boxes.find((b) => b.machineId !== null && b.signoffs.length < 12) ?? bench.boxes[0];
  return <Navigate to={box ? `/box/${box.id}/${currentStop(box)}` : '/shelf'} replace />;
}

export const router = createBrowserRouter([
  {
    path: '/',
    element: <Shell />,
    errorElement: <ErrorPage />,
    HydrateFallback: () => <p style={{ padding: 24 }}>Opening the bench…</p>,
    children: [
      { index: true, element: <Home /> },
      { path: 'shelf', ...page(() => import('../features/shelf/ShelfPage')) },
      { path: 'shelf/:itemId', ...page(() => import('../features/shelf/ItemPage')) },
      { path: 'match', ...page(() => import('../features/match/MatchPage')) },
      { path: 'profiles', ...page(() => import('../features/profiles/ProfilesPage')) },
      { path: 'profiles/:profileId', ...page(() => import('../features/profiles/ProfilePage')) },
      { path: 'shopping', ...page(() => import('../features/gather/ShoppingPage')) },
      { path: 'images', ...page(() => import('../features/images/ImageRoomPage')) },
      { path: 'images/:imageId', ...page(() => import('../features/images/ImageRoomPage')) },
      { path: 'bench-day', ...page(() => import('../features/later/BenchDayPage')) },
      { path: 'practice', ...page(() => import('../features/later/PracticePage')) },
      { path: 'logbook', ...page(() => import('../features/logbook/LogbookPage')) },
      { path: 'bench', ...page(() => import('../features/benchfile/BenchFilePage')) },
      { path: 'box/new', ...page(() => import('../features/newbox/NewBoxPage')) },
      { path: 'box/:boxId', ...page(() => import('./BoxHome')) },
      { path: 'box/:boxId/survey', ...page(() => import('../features/survey/SurveyPage')) },
      { path: 'box/:boxId/choose', ...page(() => import('../features/choose/ChoosePage')) },
      { path: 'box/:boxId/gather', ...page(() => import('../features/gather/GatherPage')) },
      { path: 'box/:boxId/verify', ...page(() => import('../features/verify/VerifyPage')) },
      { path: 'box/:boxId/write', ...page(() => import('../features/write/WritePage')) },
      { path: 'box/:boxId/firmware', ...page(() => import('../features/firmware/FirmwarePage')) },
      { path: 'box/:boxId/keep', ...page(() => import('../features/keep/KeepPage')) },
      { path: 'box/:boxId/:stop', ...page(() => import('../features/stop/StopPage')) },
      { path: '*', ...page(() => import('../parts/NotFound')) },
    ],
  },
]);
