/** How the page of a hand-off looks, on a screen and on paper. */
export const PAGE_LOOK = `
:root { color-scheme: light; }
body { margin: 0; background: #f6f3ea; color: #22282f; font: 16px/1.5 system-ui, sans-serif; }
header, article { max-width: 46rem; margin: 1rem auto; padding: 1rem 1.5rem; background: #fffdf7; border: 1px solid #d8d2c2; border-radius: 4px; }
header { border-top: 4px solid #1f4e79; }
h1, h2 { margin: 0; font-family: Georgia, serif; line-height: 1.25; }
h1 { font-size: 1.4rem; }
h2 { font-size: 1.1rem; }
code { font-size: .8rem; font-weight: normal; color: #555c64; overflow-wrap: anywhere; }
p { margin: .4rem 0; }
.small { font-size: .8rem; color: #555c64; }
.text { white-space: pre-line; overflow-wrap: anywhere; }
.expected { margin-left: 1.6rem; color: #1f5c43; }
.tools { display: flex; flex-wrap: wrap; gap: .5rem 1.5rem; align-items: center; }
ol { margin: .6rem 0; padding-left: 2rem; }
li { padding: .35rem 0; border-top: 1px solid #e6e0d1; }
li > label { display: flex; gap: .5rem; align-items: baseline; }
li.is-done .text { color: #6a7078; }
input, textarea, button { font: inherit; }
input[type=checkbox] { width: 1.1rem; height: 1.1rem; flex: none; }
button { min-height: 1.8rem; padding: 0 .7rem; border: 1px solid #b9b19c; border-radius: 4px; background: #fffdf7; cursor: pointer; }
li > button { margin-left: 1.6rem; font-size: .8rem; }
textarea { display: block; box-sizing: border-box; width: 100%; margin: .3rem 0; min-height: 3.2rem; }
img { display: block; max-width: 100%; max-height: 26rem; margin: .4rem 0; }
@media print {
  body { background: none; }
  header, article { max-width: none; border: 0; padding: 0; }
  article { break-inside: avoid-page; }
  header .tools, #kept, .remark { display: none; }
}
`;
