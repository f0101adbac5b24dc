import { useEffect, useState } from 'react';

/** Seconds since a moment (ISO 8601), told anew every second; null where none is given. */
export function useSince(from: string | null): number | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (from === null) return undefined;
    const tick = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(tick);
  }, [from]);
  return from === null ? null : Math.max(0, (now - Date.parse(from)) / 1000);
}
