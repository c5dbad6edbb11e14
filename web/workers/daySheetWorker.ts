import { clientsClaim } from 'workbox-core';
import { cleanupOutdatedCaches, createHandlerBoundToURL, precacheAndRoute } from 'workbox-precaching';
import { NavigationRoute, registerRoute } from 'workbox-routing';

/** The files day sheets are made of, with their revisions; the build fills it in. */
declare const DAY_SHEET_FILES: { url: string; revision: string | null }[];

// Answers for the pages of day sheets from what was fetched before, so that they open without a connection. What is asked of the
// server under /api is never answered from here: the pages store what they need themselves.
precacheAndRoute(DAY_SHEET_FILES);
cleanupOutdatedCaches();
registerRoute(new NavigationRoute(createHandlerBoundToURL('/index.html'), { allowlist: [/^\/day-sheets(\/|$)/] }));
clientsClaim();
