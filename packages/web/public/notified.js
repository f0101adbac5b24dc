// Part of the service worker: whoever follows a notice of the system's lands at what it was about.
self.addEventListener('notificationclick', (event) => {
  event.notification.close();
  const to = event.notification.data?.to ?? '/';
  const land = async () => {
    const [page] = await self.clients.matchAll({ type: 'window' });
    if (!page) return self.clients.openWindow(to);
    // The page goes there by itself: what is typed in it and not saved is asked about.
    page.postMessage({ followed: to });
    return page.focus();
  };
  event.waitUntil(land());
});
