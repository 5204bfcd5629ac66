/*
 * Keeps the built interface on the device once a run has been opened, so that the run goes on without the server. Only pages and their
 * files are kept; what the server says is never answered from here.
 */
const CACHE = 'plate-fold __VERSION__';
const FILES = __FILES__;

self.addEventListener('install', e => {
  e.waitUntil(
    caches
      .open(CACHE)
      .then(c => c.addAll(FILES))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', e => {
  e.waitUntil(
    caches
      .keys()
      .then(names =>
        Promise.all(names.filter(n => n.startsWith('plate-fold ') && n !== CACHE).map(n => caches.delete(n))),
      )
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('fetch', e => {
  const { request } = e;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin || url.pathname.startsWith('/api/')) return;
  if (request.mode === 'navigate') {
    e.respondWith(fetch(request).catch(() => caches.match('/').then(page => page ?? Response.error())));
    return;
  }
  e.respondWith(caches.match(request).then(kept => kept ?? fetch(request)));
});
