/** How the page of a report looks, on a screen and on A4. */
export const REPORT_LOOK = `
:root { color-scheme: light; }
@page { size: A4; margin: 16mm 15mm; }
body { margin: 0; background: #f6f3ea; color: #22282f; font: 15px/1.45 system-ui, sans-serif; print-color-adjust: exact; -webkit-print-color-adjust: exact; }
main { max-width: 48rem; margin: 1rem auto; padding: 1.5rem 2rem; background: #fffdf7; border: 1px solid #d8d2c2; border-radius: 4px; }
h1, h2 { margin: 0; font-family: Georgia, serif; line-height: 1.25; }
h1 { font-size: 1.5rem; }
h2 { margin-top: 1.4rem; font-size: 1.1rem; border-bottom: 1px solid #22282f; break-after: avoid; }
p { margin: .4rem 0; overflow-wrap: anywhere; }
.small { font-size: .8rem; color: #555c64; }
.note { white-space: pre-line; padding-left: .8rem; border-left: 3px solid #1f4e79; }
.figures { display: flex; flex-wrap: wrap; justify-content: space-between; gap: .5rem 1rem; margin: 1rem 0 0; padding: 0; list-style: none; }
.figures li { max-width: 8rem; font-size: .75rem; color: #555c64; line-height: 1.3; }
.figures b { display: block; font: bold 1.6rem Georgia, serif; color: #22282f; white-space: nowrap; }
table { width: 100%; margin-top: .5rem; border-collapse: collapse; font-size: .85rem; }
th { text-align: left; font-size: .75rem; color: #555c64; font-weight: normal; }
th, td { padding: .2rem .6rem .2rem 0; border-bottom: 1px solid #e6e0d1; vertical-align: baseline; overflow-wrap: anywhere; }
.number { text-align: right; }
.legend span { margin-right: 1rem; }
.legend i { display: inline-block; width: 9px; height: 9px; border: 1px solid #b9b19c; border-radius: 2px; }
table.bars { table-layout: fixed; }
.bars th:not(.number) { width: 28%; }
tr { break-inside: avoid; }
.strip { display: flex; height: 9px; border: 1px solid #b9b19c; border-radius: 2px; overflow: hidden; background: #fffdf7; }
.strip i { height: 100%; }
.shown { background: #2d6a52; }
.linked { background: repeating-linear-gradient(45deg, #b87a1e 0 3px, #f3e4c6 3px 6px); }
.waiting { background: #6b4c7d; }
.suspect { background: #ae4030; }
svg { display: block; width: 100%; margin-top: .5rem; break-inside: avoid; }
svg text { font: 11px system-ui, sans-serif; fill: #555c64; }
svg polyline { fill: none; stroke: #2d6a52; stroke-width: 2; }
svg .rule { stroke: #e6e0d1; }
svg .mark { stroke: #555c64; stroke-dasharray: 4 3; }
@media print {
  th, td { padding-block: .08rem; }
  html { font-size: 13.5px; }
  body { font-size: 12.5px; }
  svg { height: 34mm; }
  h2 { margin-top: .9rem; }
  table { margin-top: .25rem; font-size: .8rem; }
  body { background: none; }
  main { max-width: none; margin: 0; padding: 0; border: 0; background: none; }
}
`;
