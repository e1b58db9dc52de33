import { Hono } from 'hono';
import { html } from 'hono/html';
import type { Postbox, TakenMail } from './postbox.ts';

/** Where the mails are read that a simulated mail server took, and its mood is set. */
export function createPostboxPage(postbox: Postbox): Hono {
  const app = new Hono();
  app.get('/', (c) => c.html(page(postbox)));
  app.get('/mails', (c) => c.json(postbox.mails));
  app.post('/mood', async (c) => {
    const { busy } = await c.req.parseBody();
    postbox.mood.busy = busy === 'yes';
    return c.redirect('/');
  });
  return app;
}

const STYLE = `body{font:16px/1.5 system-ui,sans-serif;color:#222;background:#f6f3ec;max-width:46rem;margin:2rem auto;padding:0 1rem}
article{background:#fff;border:1px solid #d8d2c4;padding:.5rem 1rem;margin:1rem 0}h2{font-size:1rem;margin:.3rem 0}p{margin:.2rem 0}
small{color:#555}pre{white-space:pre-wrap;overflow-wrap:anywhere;font:inherit;margin:.6rem 0}button{font:inherit}`;

function page(postbox: Postbox) {
  const { busy } = postbox.mood;
  return html`<!doctype html>
    <html lang="en">
      <head><meta charset="utf-8" /><meta name="viewport" content="width=device-width" /><title>Simulated mail</title><style>${STYLE}</style></head>
      <body>
        <h1>Simulated mail</h1>
        <p>Mails that Caderno sent to this stand-in, the latest first. Nothing leaves this machine.</p>
        <p>Nobody has an address that begins with nobody@: mails to it are refused.</p>
        <form method="post" action="/mood"><input type="hidden" name="busy" value="${busy ? 'no' : 'yes'}" /><p>${busy ? 'It takes no mail for now.' : 'It takes mail.'} <button>${busy ? 'Take mail again' : 'Take none for now'}</button></p></form>
        ${postbox.mails.length === 0 ? html`<p>No mail yet. <a href="/">Look again</a></p>` : postbox.mails.map(article)}
      </body>
    </html>`;
}

function article(mail: TakenMail) {
  return html`<article><h2>${mail.subject}</h2><p><small>to ${mail.to.join(', ')} · from ${mail.from} · ${mail.at.toISOString()}</small></p><pre>${mail.text.split(/(https?:\/\/[^\s<>"]+)/).map((part, i) => (i % 2 === 1 ? html`<a href="${part}">${part}</a>` : part))}</pre></article>`;
}
