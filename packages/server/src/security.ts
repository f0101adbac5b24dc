import type { MiddlewareHandler } from 'hono';

const LOOPBACK = /^(localhost|127\.0\.0\.1|\[::1\])(:\d{1,5})?$/;

/**
 * Styles are inline because the component library writes them so; scripts never are. WebAssembly is for digests and
 * unpacking; one unpacker loads its own from a data address.
 */
const CSP = [
  "default-src 'none'",
  "script-src 'self' 'wasm-unsafe-eval'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self' data:",
  "connect-src 'self' data:",
  "worker-src 'self' blob:",
  "manifest-src 'self'",
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

/** What every answer carries, refusals and faults included (Fetch standard; CSP level 3; HTML standard for the openers). */
export const HEADERS: Readonly<Record<string, string>> = {
  'Content-Security-Policy': CSP,
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
};

export const sendHeaders: MiddlewareHandler = async (c, next) => {
  await next();
  for (const [name, value] of Object.entries(HEADERS)) c.header(name, value);
};

/**
 * Only this machine's own pages may speak to the server: the Host must be a loopback name (which defeats DNS
 * rebinding), an Origin must be the same host, and what a browser says comes from elsewhere (Fetch Metadata, W3C) may only
 * be a link to the page itself. A request that changes something must not come from a browser that hides its origin.
 */
export const guardRequests: MiddlewareHandler = async (c, next) => {
  const host = c.req.header('host') ?? '';
  if (!LOOPBACK.test(host)) return c.json({ error: 'This server answers on this machine only.' }, 403);
  const origin = c.req.header('origin');
  const site = c.req.header('sec-fetch-site');
  const reads = ['GET', 'HEAD'].includes(c.req.method);
  if (origin !== undefined && origin !== `http://${host}`)
    return c.json({ error: 'Refused: the request comes from another page.' }, 403);
  const link = reads && c.req.header('sec-fetch-mode') === 'navigate' && !c.req.path.startsWith('/api');
  if (site !== undefined && !['same-origin', 'none'].includes(site) && !link)
    return c.json({ error: 'Refused: the request comes from another page.' }, 403);
  if (!reads && origin === undefined && site !== undefined)
    return c.json({ error: 'Refused: the request does not say where it comes from.' }, 403);
  await next();
  return undefined;
};
