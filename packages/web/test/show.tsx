import { ChakraProvider } from '@chakra-ui/react';
import { render } from '@testing-library/react';
import type { ReactNode } from 'react';
import { HotkeysProvider } from 'react-hotkeys-hook';
import { createMemoryRouter, RouterProvider } from 'react-router';
import { system } from '../src/theme';

// What the page has and jsdom has not: watching sizes, and a structured copy.
class Watcher {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}

/** Gives jsdom what a page has; call it before all tests of a file. */
export function asPage(): void {
  globalThis.ResizeObserver = Watcher;
  globalThis.structuredClone ??= ((x: unknown) =>
    JSON.parse(JSON.stringify(x)) as unknown) as typeof structuredClone;
  globalThis.PointerEvent ??= class extends MouseEvent {
    readonly pointerType: string;
    constructor(type: string, init: PointerEventInit = {}) {
      super(type, init);
      this.pointerType = init.pointerType ?? '';
    }
  } as typeof PointerEvent;
  Element.prototype.scrollTo = () => undefined;
  Element.prototype.scrollIntoView = () => undefined;
  globalThis.matchMedia ??= ((query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  })) as unknown as typeof matchMedia;
}

/** Shows something in the house's clothes, at an address of its own beside others. */
export function showAt(what: ReactNode, others: Record<string, ReactNode> = {}) {
  const router = createMemoryRouter(
    [{ path: '/', element: what }, ...Object.entries(others).map(([path, element]) => ({ path, element }))],
    { initialEntries: ['/'] },
  );
  const shown = render(
    <ChakraProvider value={system}>
      <HotkeysProvider>
        <RouterProvider router={router} />
      </HotkeysProvider>
    </ChakraProvider>,
  );
  return { router, ...shown };
}
