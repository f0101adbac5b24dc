import { BP, DS, mask, SP, SS, type RealModeMachine } from './machine';

/** Takes the next bytes of the code as an unsigned number. */
type Fetch = (width: 1 | 2 | 4) => number;

/** The base and scale that a byte behind the mode byte names (SIB; IA-32 SDM volume 2, table 2-3). */
function scaled(m: RealModeMachine, fetch: Fetch, mode: number): { offset: number; stack: boolean } {
  const byte = fetch(1);
  const base = byte & 7;
  const index = (byte >> 3) & 7;
  const times = 1 << (byte >> 6);
  const from = index === SP ? 0 : m.get(index, 4) * times;
  if (base === BP && mode === 0) return { offset: from + fetch(4), stack: false };
  return { offset: from + m.get(base, 4), stack: base === BP || base === SP };
}

/**
 * An address in thirty-two bits, as the prefix 67h asks for it (IA-32 SDM volume 2, table 2-2): its offset, and the segment
 * that counts where none is named.
 */
export function wideAddress(
  m: RealModeMachine,
  fetch: Fetch,
  mode: number,
  low: number,
): { offset: number; segment: number } {
  let stack = low === BP && mode !== 0;
  let offset: number;
  if (low === SP) ({ offset, stack } = scaled(m, fetch, mode));
  else if (low === BP && mode === 0) offset = fetch(4);
  else offset = m.get(low, 4);
  if (mode === 1) offset += (fetch(1) << 24) >> 24;
  if (mode === 2) offset += fetch(4);
  offset = mask(offset % 2 ** 32, 4);
  return { offset, segment: stack ? SS : DS };
}
