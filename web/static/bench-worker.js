// The bench without a line: a page of it opens from what it put by itself. With a line everything comes fresh, so
// nothing here is ever out of date.
const late = 4000; // ms: a line may hang without breaking

self.addEventListener("install", () => self.skipWaiting());
self.addEventListener("activate", (e) => e.waitUntil(self.clients.claim()));
self.addEventListener("fetch", (e) => {
  if (e.request.method === "GET") e.respondWith(fresh(e.request));
});

async function fresh(request) {
  const kept = await caches.match(request, { ignoreSearch: request.mode === "navigate", ignoreVary: true });
  if (!kept) return fetch(request);
  const tooLate = new Promise((done) => setTimeout(done, late, kept));
  return Promise.race([fetch(request).catch(() => kept), tooLate]);
}
