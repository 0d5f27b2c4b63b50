import { type InputSettings, whatBrowserDoes } from '../../../audio/inputs.ts';

/** What the browser does to the sound, told before anything is recorded. */
export function WhatBrowserDoes({ settings, sampleRateHz }: { settings: InputSettings[]; sampleRateHz: number }) {
  const { fair, sentences } = whatBrowserDoes(settings, sampleRateHz);
  const [first, ...others] = sentences;
  return (
    <div className={fair ? 'small' : 'caution'} role={fair ? undefined : 'alert'}>
      <div>
        <b>{first}</b> {others.join(' ')}
      </div>
    </div>
  );
}
