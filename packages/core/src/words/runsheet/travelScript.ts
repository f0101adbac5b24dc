/**
 * What a sheet that travels does by itself: ticks with their times, notes, and a copy of itself that carries them. It runs
 * without us, on whatever shows HTML, so it is plain JavaScript as browsers have had it for years (ECMAScript 2018).
 */
export const TRAVEL_SCRIPT = `
(function () {
  'use strict';
  var holder = document.getElementById('zealous-box-run');
  var record = JSON.parse(holder.textContent);
  var place = 'zealous-box-run ' + record.box.id + ' ' + record.madeAt;
  // What this browser kept of the same sheet; ticks that came with the file meanwhile are there as well.
  var came = JSON.stringify(record.done);
  try {
    var kept = JSON.parse(localStorage.getItem(place));
    if (kept && kept.came === came) record.done = kept.done;
    else if (kept) Object.keys(kept.done).forEach(function (key) {
      if (!record.done[key]) record.done[key] = kept.done[key];
    });
  } catch (error) { /* Without it the ticks live in the page, and in what is saved. */ }
  var began = Date.now();
  var byKey = {};
  record.steps.forEach(function (s) { byKey[s.key] = s; });

  function keep(words) {
    try { localStorage.setItem(place, JSON.stringify({ came: came, done: record.done })); } catch (error) { words = 'Save the sheet: this browser keeps nothing.'; }
    document.getElementById('kept').textContent = words;
  }
  function shown(seconds) {
    return seconds < 60 ? Math.round(seconds) + ' s' : Math.round(seconds / 60) + ' min';
  }
  function draw() {
    var done = 0;
    document.querySelectorAll('.step').forEach(function (li) {
      var d = record.done[li.dataset.key];
      if (d) done += 1;
      li.classList.toggle('done', Boolean(d));
      li.querySelector('[data-tick]').checked = Boolean(d);
      var noted = li.querySelector('[data-noted]');
      if (noted && d && noted.value === '') noted.value = d.noted;
      li.querySelector('[data-when]').textContent = d
        ? new Date(d.at).toLocaleTimeString() + (d.seconds === null ? '' : ', ' + shown(d.seconds))
        : '';
    });
    document.getElementById('count').textContent = done + ' of ' + record.steps.length + ' done.';
  }
  document.addEventListener('change', function (event) {
    var li = event.target.closest('.step');
    if (!li) return;
    var key = li.dataset.key;
    var noted = li.querySelector('[data-noted]');
    if (event.target.matches('[data-tick]')) {
      if (event.target.checked) {
        var now = Date.now();
        record.done[key] = {
          at: new Date(now).toISOString(),
          seconds: (now - began) / 1000,
          as: byKey[key].as,
          said: byKey[key].title.slice(0, 500),
          noted: noted ? noted.value.trim() : ''
        };
        // From one tick to the next is the time of the next.
        began = now;
      } else delete record.done[key];
    } else if (noted && record.done[key]) record.done[key].noted = noted.value.trim();
    draw();
    keep('Kept in this browser; save the sheet to carry it back.');
  });
  document.getElementById('save').addEventListener('click', function () {
    holder.textContent = JSON.stringify(record).replace(/</g, '\\\\u003c');
    var text = '<!doctype html>\\n' + document.documentElement.outerHTML;
    var link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([text], { type: 'text/html' }));
    link.download = record.box.name.replace(/[^\\p{L}\\p{N}]+/gu, '-').toLowerCase() + '-run-sheet.html';
    link.click();
    document.getElementById('kept').textContent = 'Saved.';
  });
  draw();
})();
`;
/** SHA-256 of the script in Base64: the sheet runs no other (Content Security Policy Level 3 §6.7). */
export const TRAVEL_SCRIPT_HASH = 'C7ZhJVguaSS/XzKoEj2vZTdgsMTBk8iGyICphLrDC6E=';
