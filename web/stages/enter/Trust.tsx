import { useEffect, useState } from 'react';
import { keepProgram } from '../../offline/useKeptHere.ts';
import { Sheet } from '../../parts/states.tsx';

/** What holds on this phone as it is, what needs its trust, and how to give it for a day. */
export function Trust() {
  const [trusted, setTrusted] = useState<boolean | null>(null);
  useEffect(() => {
    // A browser takes the program onto the device only over a connection that it trusts.
    keepProgram().then(
      (kept) => setTrusted(kept !== null),
      () => setTrusted(false),
    );
  }, []);
  return (
    <Sheet title="What this phone can do">
      <table className="plain">
        <tbody>
          <tr>
            <td>Log while the page is open, with the laptop near or away</td>
            <td>yes</td>
          </tr>
          <tr>
            <td>Keep every line when the phone's battery dies</td>
            <td>yes</td>
          </tr>
          <tr>
            <td>Open the page, or load it again, without the laptop</td>
            <td>{trusted === null ? 'being looked at' : trusted ? 'yes' : 'only once the phone trusts the laptop'}</td>
          </tr>
        </tbody>
      </table>
      {trusted === false && (
        <details className="mt-2">
          <summary>Trust the laptop for its day</summary>
          <ol className="small mb-0 mt-2">
            <li>
              <a href="/trust.crt" download>
                Fetch the laptop's certificate
              </a>
              . It speaks for this laptop at this address only, and it ends by itself with the day (or week) that was chosen there. The key that could sign others was thrown away.
            </li>
            <li>In the phone's settings, look for "certificate" under security or privacy, and install it as an authority (a "CA certificate"). Some phones call it a profile.</li>
            <li>Where the phone has a separate list of trusted authorities, switch it on there.</li>
            <li>Come back to this page and load it again: it says yes above, and the warning is gone.</li>
            <li>After the job, remove it in the same place. It is worth nothing after its end, but a tidy phone is a safe one.</li>
          </ol>
        </details>
      )}
    </Sheet>
  );
}
