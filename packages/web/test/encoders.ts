import { TextDecoder, TextEncoder } from 'node:util';

// A page has them; the page that tests are shown in has not.
globalThis.TextEncoder ??= TextEncoder;
globalThis.TextDecoder ??= TextDecoder as typeof globalThis.TextDecoder;

// The router makes one for every step; nothing in a test asks what is in it.
globalThis.Request ??= class {
  readonly method = 'GET';
  readonly signal: AbortSignal | undefined;
  constructor(
    readonly url: string,
    init?: { signal?: AbortSignal },
  ) {
    this.signal = init?.signal;
  }
} as unknown as typeof Request;
