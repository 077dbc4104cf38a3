import { useMeStore } from '~/stores/me';

/** Pages that show nothing of what is kept here. */
const OPEN = ['/sign-in', '/join'];

/** Leads who is not signed in to the sign-in page, and from there back to where they wanted to go. */
export default defineNuxtRouteMiddleware(async (to) => {
  if (OPEN.includes(to.path)) return;
  // A server that does not answer is told by the page itself.
  const isKnown = await useMeStore()
    .known()
    .catch(() => true);
  if (!isKnown) return navigateTo({ path: '/sign-in', query: to.fullPath === '/' ? {} : { to: to.fullPath } });
});
