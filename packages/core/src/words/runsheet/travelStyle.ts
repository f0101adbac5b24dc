/** How a sheet that travels looks: on a phone, a tablet, on paper, by day and by night. */
export const TRAVEL_STYLE = `
:root{color-scheme:light dark;--ground:#fdfcf9;--ink:#1d2024;--rule:#a9a48f;--soft:#5a5a55;--act:#1b4a86;--warn:#8a2a12}
@media(prefers-color-scheme:dark){:root{--ground:#191b1e;--ink:#eceae4;--rule:#6d6a5f;--soft:#b4b1a8;--act:#9cc0f2;--warn:#f2a48e}}
*{box-sizing:border-box}
body{margin:0;background:var(--ground);color:var(--ink);font:18px/1.5 system-ui,sans-serif}
.top,main{max-width:46rem;margin:0 auto;padding:1rem}
.top{border-bottom:1px solid var(--rule)}
h1{margin:0;font-size:1.7rem}h2{margin:.2rem 0 .4rem;font-size:1.45rem;line-height:1.2;overflow-wrap:anywhere}
p{margin:.3rem 0}
.steps{list-style:none;margin:0;padding:0}
.step{border-bottom:1px solid var(--rule);padding:1rem 0}
.step>header{color:var(--soft);font-size:.85rem;display:flex;gap:.6rem}
.step>header .usual{margin-left:auto}
.no{font-weight:700}
dl{margin:.4rem 0}dl div{margin:.3rem 0}dt{color:var(--soft);font-size:.85rem}
dd{margin:0;font:1.15rem/1.4 ui-monospace,monospace;white-space:pre-wrap;overflow-wrap:anywhere}
.change{font:1.2rem ui-monospace,monospace}
.hurts{color:var(--warn);font-weight:700}
.acts{display:flex;flex-wrap:wrap;gap:.8rem;align-items:center;margin-top:.7rem}
label{display:inline-flex;gap:.5rem;align-items:center;min-height:44px}
input[type=checkbox]{width:28px;height:28px;accent-color:var(--act)}
input[type=text]{font:inherit;padding:.4rem;border:1px solid var(--rule);background:transparent;color:inherit;max-width:16rem}
button{font:inherit;font-weight:700;padding:.6rem 1rem;border:1px solid var(--act);background:transparent;color:var(--act);min-height:44px}
output,#kept{color:var(--soft);font-size:.9rem}
.done>h2{text-decoration:line-through;text-decoration-thickness:1px}
@media print{body{font-size:11pt}.top .acts{display:none}.step{break-inside:avoid}}
`;
