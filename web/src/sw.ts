/// <reference lib="webworker" />
/** The page on the tablet: its files and the page itself are kept, so that it opens while the server is gone. No answer of the API is kept here. */
import { cleanupOutdatedCaches, type PrecacheEntry, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { NetworkOnly } from "workbox-strategies";

declare let self: ServiceWorkerGlobalScope & { __KEPT_FILES: PrecacheEntry[] };

const FILES = self.__KEPT_FILES; // put in its place by the build
const VERSION = FILES.map((f) => f.url + (f.revision ?? "")).join("|");
const PAGE = `page-${hash(VERSION)}`;
const PATIENCE_S = 3;
const GONE = new Set([502, 504]); // told by a proxy whose server is gone

function hash(text: string): string {
  let found = 0;
  for (let i = 0; i < text.length; i += 1) found = (found * 31 + text.charCodeAt(i)) | 0;
  return (found >>> 0).toString(36);
}

precacheAndRoute(FILES);
cleanupOutdatedCaches();
// the page of the same build as the files: another one would ask for files that are not kept
self.addEventListener("install", (event) =>
  event.waitUntil(caches.open(PAGE).then((cache) => cache.add(new Request("/", { cache: "reload" })))),
);
self.addEventListener("activate", (event) =>
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((n) => n.startsWith("page-") && n !== PAGE).map((n) => caches.delete(n))),
      )
      .then(() => self.clients.claim()),
  ),
);
self.addEventListener("message", (event) => {
  if ((event.data as { type?: string } | null)?.type === "SKIP_WAITING") void self.skipWaiting();
});
registerRoute(
  new NavigationRoute(
    new NetworkOnly({
      networkTimeoutSeconds: PATIENCE_S,
      plugins: [
        {
          fetchDidSucceed: ({ response }) =>
            GONE.has(response.status) ? Promise.reject(new Error("gone")) : Promise.resolve(response),
          handlerDidError: async () => (await caches.open(PAGE)).match("/"),
        },
      ],
    }),
    { denylist: [/^\/api\//] },
  ),
);
