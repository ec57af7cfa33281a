/** Registers the service worker of an exported app, so that every screen loads offline. Metro's dev server has none. */
export function registerServiceWorker(): void {
  if (process.env.NODE_ENV !== 'production' || !('serviceWorker' in navigator)) return;
  navigator.serviceWorker.register('/sw.js').catch((error: unknown) => {
    console.error('The service worker could not be registered; Dorvel works, but not offline.', error);
  });
  // Asks the browser not to clear what is on this device when room gets short. It may say no.
  void navigator.storage.persist();
}
