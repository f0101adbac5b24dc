import {
  createServer,
  type IncomingMessage,
  type Server,
  type ServerOptions,
  type ServerResponse,
} from 'node:http';
import type { AddressInfo } from 'node:net';
import { serve } from '@hono/node-server';
import type { Hono } from 'hono';
import { HEADERS } from './security';

/** More than a browser and its tabs ever open; whoever floods the server waits. */
const MOST_CONNECTIONS = 256;

/**
 * Answers on this machine only. Resolves with the port once it listens; rejects where the port cannot be had. What never
 * reaches the application (a request that is no HTTP) is answered with the same headers.
 */
export function listen(app: Hono, port: number): Promise<{ server: Server; port: number }> {
  const withHeaders = (
    options: ServerOptions,
    listener: (request: IncomingMessage, response: ServerResponse) => void,
  ): Server =>
    createServer(options, (request, response) => {
      for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
      listener(request, response);
    });
  return new Promise((resolve, reject) => {
    const server = serve(
      {
        fetch: app.fetch,
        hostname: '127.0.0.1',
        port,
        createServer: withHeaders as typeof createServer,
        // A file may be long on its way, and longer where it waits for a turn: a request has no end of its own.
        // A request without a Host is refused by the guard, with the headers of every answer.
        serverOptions: { requestTimeout: 0, headersTimeout: 20_000, requireHostHeader: false },
      },
      () => resolve({ server, port: (server.address() as AddressInfo).port }),
    ) as Server;
    server.maxConnections = MOST_CONNECTIONS;
    server.on('error', reject);
    server.on('clientError', (_error, socket) => {
      if (!socket.writable) return socket.destroy();
      const lines = Object.entries(HEADERS).map(([name, value]) => `${name}: ${value}`);
      return socket.end(
        ['HTTP/1.1 400 Bad Request', 'Connection: close', 'Content-Length: 0', ...lines, '', ''].join('\r\n'),
      );
    });
  });
}
