/// <reference lib="webworker" />
import { clientsClaim } from "workbox-core";
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { heldCache } from "../wire/held";

// The service worker: it keeps the pages, so that they open without the application, and answers then with what the device
// holds (docs/rules/apart.md section 6). While the application answers, all that is shown comes from there.

declare const self: ServiceWorkerGlobalScope;

cleanupOutdatedCaches();
precacheAndRoute(self.__WB_MANIFEST);
clientsClaim(); // the first page too

const patience = 4000; // ms until an application that says nothing is taken for one that does not answer

/** inTime is an answer of the application, unless it does not come in time or what stands before it says that it is gone. */
async function inTime(asked: Promise<Response>): Promise<Response> {
  const late = new Promise<never>((_, reject) => setTimeout(() => reject(new Error("no answer")), patience));
  const answer = await Promise.race([asked, late]);
  if (answer.status >= 502 && answer.status <= 504) throw new Error("no answer");
  return answer;
}

// What changes with each question, or goes on, is only there with the application.
const never = /^\/api\/(clock$|rooms\/)|\/stream$/;

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && url.pathname.startsWith("/api/") && !never.test(url.pathname),
  async ({ request }) => {
    const asked = fetch(request);
    asked.catch(() => undefined); // it may be given up
    try {
      return await inTime(asked);
    } catch {
      const held = await caches.match(request.url, { cacheName: heldCache });
      return held ?? asked; // what takes long, as an export, is waited for
    }
  },
);

registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        return await inTime(fetch(request));
      } catch {
        return (await matchPrecache("/index.html")) ?? Response.error();
      }
    },
    { denylist: [/^\/(api|room)\//, /\.\w+$/] },
  ),
);
