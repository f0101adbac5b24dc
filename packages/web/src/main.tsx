import '@fontsource-variable/atkinson-hyperlegible-next/index.css';
import '@fontsource-variable/atkinson-hyperlegible-mono/index.css';
import './app/page.css';
import { ChakraProvider } from '@chakra-ui/react';
import { notifyManager, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { judgeOn } from '@zb/core/box/today';
import { formatISO } from 'date-fns';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { HotkeysProvider } from 'react-hotkeys-hook';
import { RouterProvider } from 'react-router';
import { router } from './app/routes';
import './parts/install';
import { healthQuery } from './parts/writer';
import { system } from './theme';
import { BenchStore } from './storage/benchStore';
import { benchQuery, StoreContext } from './storage/hooks';

// What an act changed is on the screen before anything else happens: a choice must never spring back for a moment.
notifyManager.setScheduler(queueMicrotask);
const client = new QueryClient({
  defaultOptions: {
    queries: { refetchOnWindowFocus: false, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});
// Whether a release is still looked after is judged on the day the page was opened.
judgeOn(formatISO(new Date(), { representation: 'date' }));
const store = new BenchStore(client);
// What the first drawing waits for is on its way before anything is drawn.
void client.prefetchQuery(benchQuery(store));
void client.prefetchQuery(healthQuery);
const root = document.getElementById('root');
if (!root) throw new Error('The page has no root.');
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={client}>
      <StoreContext.Provider value={store}>
        <ChakraProvider value={system}>
          <HotkeysProvider>
            <RouterProvider router={router} />
          </HotkeysProvider>
        </ChakraProvider>
      </StoreContext.Provider>
    </QueryClientProvider>
  </StrictMode>,
);
