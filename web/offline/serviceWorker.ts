import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, type PrecacheEntry, precacheAndRoute } from 'workbox-precaching';
import { registerRoute } from 'workbox-routing';
import { NetworkFirst } from 'workbox-strategies';
import { isKept, KEPT_SINCE_HEADER, type KeepAnswer, type KeepRequest } from './keptAddresses.ts';

declare const self: ServiceWorkerGlobalScope;
/** The program's own files, put in by the build. */
declare const PROGRAM: PrecacheEntry[];

/**
 * A laptop that is out of a phone's reach often answers nothing at all: after so long what was kept is shown. On the
 * laptop itself a server that is away says so at once, and one that is busy is waited for.
 */
const PATIENCE_S = self.location.protocol === 'https:' ? 4 : null;
const ANSWERS = 'marvet-answers';

void self.skipWaiting();
clientsClaim();
cleanupOutdatedCaches();
precacheAndRoute(PROGRAM);

const answers = new NetworkFirst({
  cacheName: ANSWERS,
  ...(PATIENCE_S === null ? {} : { networkTimeoutSeconds: PATIENCE_S }),
  plugins: [
    {
      async cachedResponseWillBeUsed({ cachedResponse }) {
        if (!cachedResponse) return null;
        const headers = new Headers(cachedResponse.headers);
        headers.set(KEPT_SINCE_HEADER, headers.get('date') ?? '');
        return new Response(cachedResponse.body, { status: cachedResponse.status, headers });
      },
      // Who was put out keeps nothing of the trial.
      async fetchDidSucceed({ response }) {
        if (response.status === 401) await caches.delete(ANSWERS);
        return response;
      },
    },
  ],
});
registerRoute(({ url, sameOrigin }) => sameOrigin && isKept(url.pathname), answers);

// A page comes from the server while there is one, so that it is never older than what it talks to.
const shell = createHandlerBoundToURL('/index.html');
registerRoute(
  ({ request, url }) => request.mode === 'navigate' && !/^\/(api|listen|enter)(\/|$)/.test(url.pathname),
  async (context) => {
    const asked = fetch(context.request, PATIENCE_S === null ? {} : { signal: AbortSignal.timeout(PATIENCE_S * 1000) });
    const response = await asked.catch(() => null);
    return response ?? shell(context);
  },
);

self.addEventListener('message', (event) => {
  const { keep } = event.data as KeepRequest;
  event.waitUntil(
    (async () => {
      let kept = 0;
      for (const address of keep) {
        // Those that cannot be had are told by their number.
        const [response, done] = answers.handleAll({ event, request: new Request(address) });
        kept += await response.then(
          ({ ok }) => Number(ok),
          () => 0,
        );
        await done;
      }
      event.ports[0]?.postMessage({ kept } satisfies KeepAnswer);
    })(),
  );
});
