import { contentPolicy, fixedHtml, html, type Html } from '../formats/writer/html';
import { SHEET_SCRIPT, SHEET_SCRIPT_HASH } from './sheetScript';

/** What the sheet is told of the screen it will be opened on; null where nobody knows. Hertz. */
export interface SheetTold {
  name: string;
  native: { width: number; height: number } | null;
  refreshHz: number | null;
}

/** Grey steps from black to white: as many as a picture that is neither too dark nor washed out keeps apart. Common practice, no source. */
const STEPS = 16;

/**
 * A page by itself, to be opened on the box: it needs no network and nothing but a browser. Its edges show overscan, its steps
 * whether dark and light are kept apart, its lines whether the picture is scaled; left, centre and right sound by themselves, and
 * the rate at which the screen is drawn is measured.
 */
export function testSheet({ name, native, refreshHz }: SheetTold): string {
  const told = [
    native ? `${native.width} × ${native.height} dots` : null,
    refreshHz === null ? null : `${refreshHz.toFixed(2)} Hz`,
  ].filter((t) => t !== null);
  const greys = Array.from({ length: STEPS }, (_, i) => {
    const v = Math.round((255 * i) / (STEPS - 1));
    return html`<i style="background:rgb(${v},${v},${v});color:${v < 128 ? '#fff' : '#000'}">${v}</i>`;
  });
  const near = (from: number): Html[] =>
    [1, 2, 3, 4, 5, 6].map((i) => {
      const v = from === 0 ? i * 3 : 255 - i * 3;
      return html`<i style="background:rgb(${v},${v},${v})"></i>`;
    });
  return html`<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
${contentPolicy([SHEET_SCRIPT_HASH])}
<title>Test sheet: ${name}</title>
<style>
html,body{margin:0;height:100%;background:#777;color:#000;font:16px/1.4 sans-serif;overflow:hidden}
.edge{position:fixed;border:1px solid #fff;outline:1px solid #000;pointer-events:none}
.steps{display:flex;height:12vh}.steps i{flex:1;font:12px sans-serif;padding:4px;box-sizing:border-box}
.near{display:flex;height:8vh}.near div{display:flex;flex:1;padding:1.5vh 2vw;box-sizing:border-box}.near i{flex:1}
main{position:fixed;inset:7%;display:flex;flex-direction:column;gap:2vh;justify-content:center}
svg{height:24vh;align-self:center}.lines{height:6vh;background:repeating-linear-gradient(90deg,#000 0 1px,#fff 1px 2px)}
button{font:18px sans-serif;padding:8px 18px;margin-right:8px}p{margin:0;background:#fff;padding:6px 10px}
</style>
<div class="edge" style="inset:0"></div>
<div class="edge" style="inset:2.5%"></div>
<div class="edge" style="inset:5%"></div>
<main>
<p><b>${name}</b> ${told.length > 0 ? `should show ${told.join(', ')}` : 'its screen is not known'}. Here: <span id="here">measuring</span></p>
<div class="steps">${greys}</div>
<div class="near"><div style="background:#000">${near(0)}</div><div style="background:#fff">${near(255)}</div></div>
<div class="lines"></div>
<svg viewBox="-101 -101 202 202" fill="none" stroke="#000" stroke-width="2"><circle r="100"/><circle r="50"/><path d="M-100 0H100M0-100V100"/></svg>
<p><button id="l">Left</button><button id="c">Centre</button><button id="r">Right</button> <span id="now">Keys: L, C, R; F fills the screen</span></p>
<p>The outer line is cut off: overscan; the next two are 2.5 and 5 per cent. All ${STEPS} greys, and six steps in the black and the white field, are told apart. The fine lines are even grey: the picture is not scaled. The circle is round.</p>
</main>
<script>${fixedHtml(SHEET_SCRIPT)}</script>
</html>
`.text;
}
