import type { Paired } from './devices';

export const escaped = (text: string): string => text.replace(/[&<>"']/g, (sign) => `&#${sign.charCodeAt(0)};`);

/** A page that stands by itself, before a device may have anything of the program. */
export const page = (title: string, body: string): string => `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<style>
  body { font: 18px/1.5 system-ui, sans-serif; color: #1b2530; background: #f4ede0; max-width: 40rem; margin: 2rem auto; padding: 0 1rem; }
  h1 { font-size: 1.7rem; } ol { padding-left: 1.3rem; } li { margin: .4rem 0; }
  input, button, a.button { font: inherit; min-height: 3.2rem; padding: .4rem .8rem; border: 1px solid #8a7f6c; background: #fcf8ee; color: inherit; box-sizing: border-box; }
  input, select { width: 100%; } select { font: inherit; min-height: 3.2rem; padding: .4rem .8rem; border: 1px solid #8a7f6c; background: #fcf8ee; } label { display: block; margin: .8rem 0; }
  button, a.button { background: #1b2530; color: #fcf8ee; display: inline-flex; align-items: center; text-decoration: none; }
  code { font-size: .95rem; overflow-wrap: anywhere; } [role=alert] { border-left: 4px solid #a13a1e; padding-left: .8rem; }
</style>
<main><h1>${escaped(title)}</h1>${body}</main>
</html>`;

const WHY: Readonly<Record<Extract<Paired, { ok: false }>['why'], string>> = {
  wrongCode: 'That is not the code on the main screen. Look again: six digits.',
  noCode:
    'No code is shown on the main screen now. Ask for one there, under “On the floor”; it is good for ten minutes and for one device.',
  tooOften: 'Too many tries from here. Wait a quarter of an hour, then ask for a new code.',
  noName: 'Give the device a name, so that it can be told from the others.',
  nameTaken: 'Another device is called so already. Take another name.',
};

/** Asks a device for the code on the main screen. */
export const pairPage = (why?: Extract<Paired, { ok: false }>['why'], name = ''): string =>
  page(
    'Let this device in',
    `${why ? `<p role="alert">${WHY[why]}</p>` : ''}
<p>The main screen shows six digits under “On the floor”. They let in one device.</p>
<form method="post" action="/pair">
<label>Code on the main screen <input name="code" inputmode="numeric" autocomplete="one-time-code" maxlength="9" autofocus required></label>
<label>What this device is called <input name="name" value="${escaped(name)}" maxlength="60" placeholder="Tablet by the bench" required></label>
<button>Let it in</button>
</form>`,
  );

/** Helps a tablet to trust the shop's own authority; the only page without encryption, and it shows nothing of any job. */
export const trustPage = ({
  address,
  fingerprint,
}: {
  readonly address: string;
  readonly fingerprint: string;
}): string =>
  page(
    'Trust this shop’s Vinkel',
    `<p>What you read and type goes over the air encrypted. For that this device must trust the shop once.</p>
<ol>
<li><a class="button" href="/authority.crt">Take the certificate</a></li>
<li>Open it. The device asks to install it as a certificate of an authority (in its settings under security, certificates or profiles); on some devices it must be switched on once more among trusted certificates.</li>
<li>Compare: its SHA-256 fingerprint must be the one on the main screen:<br><code>${escaped(fingerprint)}</code></li>
<li>Then go on to <a href="${escaped(address)}">${escaped(address)}</a>.</li>
</ol>
<p>Do not go on where the fingerprints differ. Only what this shop’s machine signs is trusted by it; take it off again in the same settings.</p>`,
  );
