import { AWAY_IN_WORDS } from '../../formats/people';
import { escaped, page } from '../floor/pages';
import type { TurnedAway } from './entrance';

interface Asked {
  /** Who may go on with a PIN. */
  readonly known: readonly { readonly id: string; readonly name: string }[];
  /** Where they go then. */
  readonly to: string;
  readonly why?: TurnedAway;
  /** The name typed before. */
  readonly name?: string;
}

/** Asks who works here: those who are known with a PIN, everybody with a passphrase. */
export function whoPage({ known, to, why, name = '' }: Asked): string {
  const action = `/who?to=${encodeURIComponent(to)}`;
  const byPin =
    known.length === 0
      ? ''
      : `<h2>Known here</h2>
<form method="post" action="${escaped(action)}">
<input type="hidden" name="does" value="pin">
<label>Who <select name="person">${known
          .map((each) => `<option value="${escaped(each.id)}">${escaped(each.name)}</option>`)
          .join('')}</select></label>
<label>PIN <input name="pin" type="password" inputmode="numeric" autocomplete="off" maxlength="12" required autofocus></label>
<button>Go on</button>
</form>
<h2>Somebody else</h2>`;
  return page(
    'Who works here?',
    `${why ? `<p role="alert">${AWAY_IN_WORDS[why]}</p>` : ''}${byPin}
<form method="post" action="${escaped(action)}">
<input type="hidden" name="does" value="passphrase">
<label>Your name <input name="name" value="${escaped(name)}" maxlength="200" autocomplete="username" required${known.length === 0 ? ' autofocus' : ''}></label>
<label>Your passphrase <input name="passphrase" type="password" maxlength="200" autocomplete="current-password" required></label>
<button>Come in</button>
</form>
<p>The owner of the shop gives names and passphrases, under “People of the shop” on the main screen.</p>`,
  );
}
