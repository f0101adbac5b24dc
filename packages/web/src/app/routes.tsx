import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import type { ComponentType } from 'react';
import { ErrorPage } from './Errors';
import { PageShape } from './Opening';
import { Shell } from './Shell';

const page = (load: () => Promise<{ default: ComponentType }>): Pick<RouteObject, 'lazy'> => ({
  lazy: async () => ({ Component: (await load()).default }),
});

export const router = createBrowserRouter([
  // What the sheets are made of, for those who draw them: no screen leads there.
  {
    path: '/design',
    lazy: async () => ({ Component: (await import('../features/design/DesignPage')).default }),
    HydrateFallback: () => null,
  },
  {
    path: '/',
    element: <Shell />,
    errorElement: <ErrorPage />,
    HydrateFallback: PageShape,
    children: [
      { index: true, ...page(() => import('../features/bench/BenchPage')) },
      { path: 'shelf', ...page(() => import('../features/shelf/ShelfPage')) },
      { path: 'shelf/:itemId', ...page(() => import('../features/shelf/ItemPage')) },
      { path: 'match', ...page(() => import('../features/match/MatchPage')) },
      { path: 'profiles', ...page(() => import('../features/profiles/ProfilesPage')) },
      { path: 'profiles/:profileId', ...page(() => import('../features/profiles/ProfilePage')) },
      { path: 'shopping', ...page(() => import('../features/gather/ShoppingPage')) },
      { path: 'images', ...page(() => import('../features/images/ImageRoomPage')) },
      { path: 'images/:imageId', ...page(() => import('../features/images/ImageRoomPage')) },
      { path: 'images/:imageId/trial', ...page(() => import('../features/trial/TrialPage')) },
      { path: 'network', ...page(() => import('../features/network/NetworkPage')) },
      { path: 'bench-day', element: <Navigate to="/" replace /> },
      { path: 'practice', ...page(() => import('../features/practice/PracticePage')) },
      { path: 'practice/:exerciseId', ...page(() => import('../features/practice/ExercisePage')) },
      { path: 'logbook', ...page(() => import('../features/logbook/LogbookPage')) },
      { path: 'bench', ...page(() => import('../features/benchfile/BenchFilePage')) },
      { path: 'box/new', ...page(() => import('../features/newbox/NewBoxPage')) },
      { path: 'box/:boxId', ...page(() => import('./BoxHome')) },
      { path: 'box/:boxId/run', ...page(() => import('../features/run/RunPage')) },
      { path: 'box/:boxId/survey', ...page(() => import('../features/survey/SurveyPage')) },
      { path: 'box/:boxId/choose', ...page(() => import('../features/choose/ChoosePage')) },
      { path: 'box/:boxId/gather', ...page(() => import('../features/gather/GatherPage')) },
      { path: 'box/:boxId/verify', ...page(() => import('../features/verify/VerifyPage')) },
      { path: 'box/:boxId/write', ...page(() => import('../features/write/WritePage')) },
      { path: 'box/:boxId/firmware', ...page(() => import('../features/firmware/FirmwarePage')) },
      { path: 'box/:boxId/install', ...page(() => import('../features/install/InstallPage')) },
      { path: 'box/:boxId/install/rehearsal', ...page(() => import('../features/install/RehearsalPage')) },
      { path: 'box/:boxId/install/opening', ...page(() => import('../features/install/OpeningPage')) },
      { path: 'box/:boxId/first-start', ...page(() => import('../features/firststart/FirstStartPage')) },
      { path: 'box/:boxId/network', ...page(() => import('../features/address/AddressPage')) },
      { path: 'box/:boxId/load', ...page(() => import('../features/load/LoadPage')) },
      { path: 'box/:boxId/tune', ...page(() => import('../features/tune/TunePage')) },
      { path: 'box/:boxId/keep', ...page(() => import('../features/keep/KeepPage')) },
      { path: '*', ...page(() => import('../parts/NotFound')) },
    ],
  },
]);
