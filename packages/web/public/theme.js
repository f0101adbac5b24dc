// Before the first paint: the chosen theme, or the system's, so that a dark room does not flash white.
(function () {
  var choice = null;
  try {
    choice = localStorage.getItem('zb-theme');
  } catch (error) {
    choice = null;
  }
  var dark = choice === 'dark' || (choice !== 'light' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.classList.add(dark ? 'dark' : 'light');
})();
