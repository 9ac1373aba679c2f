// Keeps what never changes: the files whose names carry their hash, the core
// among them. They are there when the browser's own cache has let them go, and
// when the server is gone. All else is asked of the server as ever.
const KEPT = 'kept'
/** Files of builds before this one go, the oldest first. */
const MOST = 200

self.addEventListener('install', () => self.skipWaiting())
self.addEventListener('activate', (e) => e.waitUntil(self.clients.claim()))
self.addEventListener('fetch', (e) => {
  const url = new URL(e.request.url)
  if (e.request.method !== 'GET' || url.origin !== location.origin || !url.pathname.startsWith('/assets/'))
    return
  e.respondWith(kept(e.request))
})

async function kept(request) {
  const store = await caches.open(KEPT)
  const hit = await store.match(request)
  if (hit) return hit
  const answer = await fetch(request)
  if (answer.ok) {
    // What cannot be kept, on a full disk, is still answered.
    await store.put(request, answer.clone()).catch(() => undefined)
    const all = await store.keys()
    await Promise.all(all.slice(0, Math.max(0, all.length - MOST)).map((old) => store.delete(old)))
  }
  return answer
}
