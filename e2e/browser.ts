import { chromium } from '@playwright/test';

/** Debian's Chromium, headless, without its calls home. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    // A microphone that beeps, in place of one that this machine has not.
    '--use-fake-device-for-media-stream',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
  ],
};

export const launch = () => chromium.launch(CHROMIUM);
