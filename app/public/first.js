// On a first visit the stored picture of the demo stands before anything else has been fetched; the live view takes its place.
try {
  if (!localStorage.getItem('visited') && location.pathname === '/') {
    const root = document.documentElement;
    root.dataset.first = 'yes';
    if (matchMedia('(prefers-color-scheme: dark)').matches) root.dataset.theme = 'dusk';
    new Image().src = '/content/night-market.png';
  }
} catch {
  // A browser that keeps nothing shows the bench when it is there.
}
