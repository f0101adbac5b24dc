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
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

/**
 * Only this machine's own pages may speak to the server: the Host must be a loopback name (which defeats DNS
 * rebinding) and, where a request changes something, the Origin must be the same host.
 */
export const guardRequests: MiddlewareHandler = async (c, next) => {
  const host = c.req.header('host') ?? '';
  if (!LOOPBACK.test(host)) return c.json({ error: 'This server answers on this machine only.' }, 403);
  const origin = c.req.header('origin');
  const changes = !['GET', 'HEAD'].includes(c.req.method);
  if (origin !== undefined && origin !== `http://${host}`)
    return c.json({ error: 'Refused: the request comes from another page.' }, 403);
  if (changes && origin === undefined && c.req.header('sec-fetch-site') !== undefined) {
    return c.json({ error: 'Refused: the request does not say where it comes from.' }, 403);
  }
  await next();
  c.header('Content-Security-Policy', CSP);
  c.header('X-Content-Type-Options', 'nosniff');
  c.header('Referrer-Policy', 'no-referrer');
  c.header('Cross-Origin-Opener-Policy', 'same-origin');
  return undefined;
};
