import { connect } from 'node:net';
import { formatIp, parseIp } from '@zb/core/units/ip';
import { rangeOf } from '@zb/core/network/ranges';
import type { Answer } from '@zb/core/model/standInLan';

/** No answer within this counts as none. */
const WAIT_MS = 1500;

/**
 * The address that may be asked, in its one canonical form: of one's own networks, never this machine's own, a link's, or
 * anybody else's. Undefined where it may not be.
 */
export function mayBeAsked(address: string): string | undefined {
  const ip = parseIp(address);
  const kind = ip && rangeOf(ip)?.kind;
  return ip && (kind === 'private' || kind === 'unique local') ? formatIp(ip) : undefined;
}

/** Asks one address and port once whether somebody is there: a connection is opened and shut, nothing is sent. */
export function askOnce(address: string, port: number): Promise<Answer> {
  const began = performance.now();
  return new Promise((resolve) => {
    const socket = connect({ host: address, port });
    const end = (answers: boolean): void => {
      socket.destroy();
      resolve({ answers, millis: answers ? performance.now() - began : null });
    };
    socket.setTimeout(WAIT_MS, () => end(false));
    socket.on('connect', () => end(true));
    // A refusal comes from somebody who is there, and has no page yet.
    socket.on('error', () => end(false));
  });
}
