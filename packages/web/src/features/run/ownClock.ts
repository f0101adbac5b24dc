import { recall, remember } from '../../storage/remembered';

const PLACE = 'zb-clock';
const running = new Map<string, { key: string; since: string }>();

function kept(boxId: string): { key: string; since: string } | undefined {
  const [id, since, ...key] = (recall(PLACE) ?? '').split(' ');
  return id === boxId && since !== undefined && !Number.isNaN(Date.parse(since))
    ? { key: key.join(' '), since }
    : undefined;
}

/**
 * Since when a step is worked on that no step before it led to: coming to it is no act that one would want to take back, so
 * this browser remembers it and the bench does not. The same moment however often it is asked (ISO 8601, UTC).
 */
export function ownClock(boxId: string, key: string): string {
  const before = running.get(boxId) ?? kept(boxId);
  if (before?.key === key) {
    running.set(boxId, before);
    return before.since;
  }
  const since = new Date().toISOString();
  running.set(boxId, { key, since });
  remember(PLACE, `${boxId} ${since} ${key}`);
  return since;
}
