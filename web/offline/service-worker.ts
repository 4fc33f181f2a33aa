import { CacheFirst, ExpirationPlugin, NetworkFirst, NetworkOnly, Serwist, type PrecacheEntry } from 'serwist'

/** What this worker sees of its surroundings; the list of the build's files is put in where it is made. */
declare const self: {
  __SW_MANIFEST: (PrecacheEntry | string)[] | undefined
  addEventListener: {
    (kind: 'message', listen: (event: MessageEvent<unknown>) => void): void
    (kind: 'fetch', listen: (event: Event & { request: Request }) => void): void
  }
}

/** Private pages: gone when somebody signs out. */
const PAGES = 'pages'
const PHOTOS = 'photos'
const WAIT_S = 4
const DAYS = 14
const MOST_PAGES = 60
const MOST_PHOTOS = 120

/**
 * A page's own workers read from their address how they are to begin, and what comes out of a cache has lost that: they
 * come from the browser, which keeps the build's files for good.
 */
self.addEventListener('fetch', (event) => {
  if (event.request.destination === 'worker' || event.request.destination === 'sharedworker')
    event.stopImmediatePropagation()
})

const pages = new NetworkFirst({
  cacheName: PAGES,
  networkTimeoutSeconds: WAIT_S,
  plugins: [
    new ExpirationPlugin({ maxEntries: MOST_PAGES, maxAgeSeconds: DAYS * 86_400 }),
    // A page that sends somebody to sign in is no page to keep.
    { cacheWillUpdate: async ({ response }) => (response.ok && !response.redirected ? response : null) },
  ],
})

const serwist = new Serwist({
  precacheEntries: self.__SW_MANIFEST ?? [],
  skipWaiting: true,
  clientsClaim: true,
  runtimeCaching: [
    {
      matcher: ({ request, url }) => request.mode === 'navigate' && /^\/($|jobs\/|rack|vehicles)/.test(url.pathname),
      handler: pages,
    },
    {
      matcher: ({ url }) => url.pathname.startsWith('/api/photos/'),
      handler: new CacheFirst({
        cacheName: PHOTOS,
        plugins: [new ExpirationPlugin({ maxEntries: MOST_PHOTOS, maxAgeSeconds: DAYS * 86_400 })],
      }),
    },
    // Every other page says that there is no network, where there is none.
    { matcher: ({ request }) => request.mode === 'navigate', handler: new NetworkOnly() },
  ],
  fallbacks: { entries: [{ url: '/offline', matcher: ({ request }) => request.mode === 'navigate' }] },
})

/** Pages of open jobs are fetched before anybody asks, so that they are there without a network. */
self.addEventListener('message', ({ data }) => {
  const asked = data as { kind?: string; urls?: string[] } | null
  if (asked?.kind === 'forget') void Promise.all([caches.delete(PAGES), caches.delete(PHOTOS)])
  if (asked?.kind !== 'keep' || !Array.isArray(asked.urls)) return
  void keep(asked.urls.filter((url) => url === '/' || url.startsWith('/jobs/')).slice(0, MOST_PAGES))
})

async function keep(urls: readonly string[]): Promise<void> {
  const cache = await caches.open(PAGES)
  for (const url of urls) {
    const response = await fetch(url, { headers: { accept: 'text/html' } }).catch(() => null)
    if (response?.ok && !response.redirected) await cache.put(url, response)
  }
}

serwist.addEventListeners()
