import type { DoorCode } from '@marvet/core/contract/door';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useWithdrawCodeMutation } from '../../data/door.ts';

/** A code as it is shown to whoever holds the phone: to point the camera at, or to type. */
export function DoorCodeCard({ code, fingerprint }: { code: DoorCode; fingerprint: string }) {
  const [withdraw] = useWithdrawCodeMutation();
  const leftS = useSecondsUntil(code.expiresAtMs);
  return (
    <section className="door-code" aria-label="Code">
      <img src={`data:image/svg+xml,${encodeURIComponent(code.qrSvg)}`} alt={`Leads to ${code.url} with the code`} />
      <div className="stack">
        <div>
          Point the phone's camera here, or go to <b className="mono text-break">{code.url}</b> and type
        </div>
        <div className="door-digits mono">
          {code.code.slice(0, 3)} {code.code.slice(3)}
        </div>
        <div className="row-line">
          <span role="timer">
            {code.role === 'log' ? 'To log in the field.' : 'To listen blind.'} Good once, for {leftS} s.
          </span>
          <Button size="sm" variant="plain" onClick={() => void withdraw()}>
            Withdraw it
          </Button>
        </div>
        <details open>
          <summary>What the phone will say first</summary>
          <ol className="small mb-0">
            <li>
              The phone warns that the connection is not private, because no authority of the internet knows this computer. That is expected here: the connection is encrypted all
              the same. Only go on if the address is the one above.
            </li>
            <li>Choose the small print of the warning (details, advanced), then to visit the page anyway.</li>
            <li>
              Who wants to be sure that nobody stands in between compares the certificate's SHA-256 fingerprint: <span className="mono text-break">{fingerprint}</span>
            </li>
            <li>
              Then logging works while the page stays open, with the laptop away too. To open the page without the laptop, the phone has to trust the certificate: the page says
              how.
            </li>
          </ol>
        </details>
      </div>
    </section>
  );
}

function useSecondsUntil(untilMs: number): number {
  const [nowMs, setNowMs] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNowMs(Date.now()), 500);
    return () => clearInterval(timer);
  }, []);
  return Math.max(0, Math.ceil((untilMs - nowMs) / 1000));
}
