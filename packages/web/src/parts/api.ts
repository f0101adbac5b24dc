import type { z } from 'zod';

/** A request the server refused or could not answer; the message is for the user. */
export class ServerError extends Error {
  override name = 'ServerError';
}

const GONE =
  'The stand-in server does not answer. Your bench does not depend on it. Start the server again with “npm run demo”, then try again.';

const STRANGE =
  'The server answers what this page does not understand: is it of another version? Nothing on your bench was changed. Load the page again.';

async function request(path: string, init?: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch (error) {
    if (error instanceof DOMException && error.name === 'AbortError') throw error;
    throw new ServerError(GONE);
  }
  if (response.ok) return response;
  const said = (await response.json().catch(() => undefined)) as { error?: unknown } | undefined;
  throw new ServerError(
    typeof said?.error === 'string'
      ? said.error
      : response.status >= 502
        ? GONE
        : `The server answered ${response.status}.`,
  );
}

async function checked<T>(response: Response, schema: z.ZodType<T>): Promise<T> {
  if (!response.headers.get('content-type')?.includes('json')) throw new ServerError(GONE);
  const { data } = schema.safeParse(await response.json());
  if (data === undefined) throw new ServerError(STRANGE);
  return data;
}

export const getJson = async <T>(path: string, schema: z.ZodType<T>): Promise<T> =>
  checked(await request(path), schema);

export const getText = async (path: string): Promise<string> => (await request(path)).text();

export async function sendJson<T>(
  method: 'POST' | 'PUT' | 'DELETE',
  path: string,
  body: unknown,
  schema: z.ZodType<T>,
): Promise<T> {
  const init: RequestInit = { method };
  if (body !== undefined)
    Object.assign(init, { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } });
  return checked(await request(path, init), schema);
}

/** Sends a file's bytes as they are; the browser streams them from disk. */
export const sendFile = (path: string, file: Blob): Promise<Response> =>
  request(path, { method: 'PUT', body: file });

/** Fetches a file with progress; `onProgress` gets bytes so far. */
export async function fetchFile(
  path: string,
  name: string,
  onProgress: (bytes: number) => void,
  signal: AbortSignal,
): Promise<File> {
  const response = await request(path, { signal });
  const reader = response.body?.getReader();
  if (!reader) throw new ServerError(GONE);
  const pieces: BlobPart[] = [];
  let have = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    pieces.push(value);
    have += value.length;
    onProgress(have);
  }
  return new File(pieces, name);
}
