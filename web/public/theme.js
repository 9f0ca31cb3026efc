// Before the first paint: the theme last chosen, else what the system asks for.
(() => {
  const kept = localStorage.getItem('theme');
  const dark = kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
  document.documentElement.dataset.theme = dark ? 'dark' : 'light';
})();
