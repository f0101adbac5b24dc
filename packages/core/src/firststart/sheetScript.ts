/** What the test sheet does by itself: sounds, keys, and the rate at which the screen is drawn. No value stands in it. */
export const SHEET_SCRIPT = `
'use strict';
const say = (id, words) => { document.getElementById(id).textContent = words; };
let context;
function sound(side, words) {
  context = context || new AudioContext();
  const tone = context.createOscillator();
  const loud = context.createGain();
  const place = context.createStereoPanner();
  tone.frequency.value = 440;
  loud.gain.setValueAtTime(0, context.currentTime);
  loud.gain.linearRampToValueAtTime(0.25, context.currentTime + 0.05);
  loud.gain.linearRampToValueAtTime(0, context.currentTime + 1.2);
  place.pan.value = side;
  tone.connect(loud).connect(place).connect(context.destination);
  tone.start();
  tone.stop(context.currentTime + 1.25);
  document.body.dataset.sound = String(side);
  say('now', 'sounding: ' + words);
}
const acts = { l: () => sound(-1, 'left'), c: () => sound(0, 'both sides'), r: () => sound(1, 'right'),
  f: () => document.fullscreenElement ? document.exitFullscreen() : document.documentElement.requestFullscreen() };
for (const id of ['l', 'c', 'r']) document.getElementById(id).addEventListener('click', acts[id]);
addEventListener('keydown', (e) => { const act = acts[e.key.toLowerCase()]; if (act) act(); });
const times = [];
function frame(now) {
  times.push(now);
  if (times.length > 121) times.shift();
  if (times.length > 30) {
    const gaps = times.slice(1).map((t, i) => t - times[i]).sort((a, b) => a - b);
    const rate = 1000 / gaps[gaps.length >> 1];
    say('here', Math.round(innerWidth * devicePixelRatio) + ' × ' + Math.round(innerHeight * devicePixelRatio) + ' dots, drawn ' + rate.toFixed(1) + ' times a second' + (innerHeight > innerWidth ? ', upright' : ''));
  }
  requestAnimationFrame(frame);
}
requestAnimationFrame(frame);
`;
/** SHA-256 of the script in Base64: the page runs no other (Content Security Policy Level 3 §6.7). */
export const SHEET_SCRIPT_HASH = 'mJQtplPBzMoYVE00NBufO8WO/z3tILIA9CHlIG0XOCU=';
