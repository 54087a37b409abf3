// What a device keeps of a class, and that somebody has signed out of it while there was no network.
const DAY = 'fobble-day'
const LEAVING = 'fobble-leaving'

/** Pages kept for a day without a network are not for whoever picks the tablet up next. */
export async function clearDevice() {
  if ('caches' in window) await caches.delete(DAY)
}

/** The server is still to hear of a sign-out. */
export const leaving = {
  get: () => localStorage.getItem(LEAVING) !== null,
  set: () => localStorage.setItem(LEAVING, ''),
  over: () => localStorage.removeItem(LEAVING),
}
