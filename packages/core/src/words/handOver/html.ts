import { micromark } from 'micromark';
import { gfm, gfmHtml } from 'micromark-extension-gfm';
import { contentPolicy, fixedHtml, html } from '../../formats/writer/html';

const STYLE = `body{font:15px/1.45 system-ui,sans-serif;color:#1c1b18;background:#fffdf8;max-width:60rem;margin:2rem auto;padding:0 1rem}
h1{font-size:1.6rem;margin:0 0 .4rem}h2{font-size:1.05rem;border-bottom:1.5px solid #1c1b18;margin:1.6rem 0 .4rem}h3{font-size:1rem}
table{border-collapse:collapse;width:100%;margin:.4rem 0}th{text-align:left;border-bottom:1.5px solid #1c1b18}
th,td{padding:.15rem .7rem .15rem 0;vertical-align:top;overflow-wrap:anywhere}td{border-bottom:1px solid #cfc9bb}
code{font-family:ui-monospace,monospace;overflow-wrap:anywhere}pre{white-space:pre-wrap}ul{padding-left:1.2rem}
tr,li{break-inside:avoid}h2{break-after:avoid}
@media print{body{margin:0;background:#fff;font-size:10.5pt}}`;

/** A page of Markdown (CommonMark with tables and tasks) as one HTML file that needs nothing else; markup in it stays text. */
export const sheetHtml = (title: string, markdown: string): string =>
  html`<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
${contentPolicy()}
<title>${title}</title>
<style>
${fixedHtml(STYLE)}
</style>
<main>
${fixedHtml(micromark(markdown, { extensions: [gfm()], htmlExtensions: [gfmHtml()] }))}
</main>
</html>
`.text;
