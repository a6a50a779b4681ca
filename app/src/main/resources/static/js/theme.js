// Before anything is painted: light or dark as the system prefers, unless somebody chose.
// No module, so that it comes first.
(() => {
  const root = document.documentElement;
  const dark = matchMedia('(prefers-color-scheme: dark)');
  if (root.dataset.bsTheme === 'auto') {
    root.dataset.bsTheme = dark.matches ? 'dark' : 'light';
    dark.addEventListener('change', () => { root.dataset.bsTheme = dark.matches ? 'dark' : 'light'; });
  }
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (zone) document.cookie = `zone=${encodeURIComponent(zone)};path=/;max-age=31536000;samesite=strict`;
})();
