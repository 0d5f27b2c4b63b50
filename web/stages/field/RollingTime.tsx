import { useEffect, useState } from 'react';

/** Seconds since a take was started. */
export function RollingTime({ sinceMs }: { sinceMs: number }) {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 250);
    return () => clearInterval(timer);
  }, []);
  return <span className="mono">{Math.max(0, Math.floor((now - sinceMs) / 1000))} s</span>;
}
