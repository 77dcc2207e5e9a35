import { credentialOf, peopleHere, withPin, type NamedPerson } from '../../db/people';
import type { Queryable } from '../../db/database';
import { nameKey } from '../../core/shell/people';
import { isSecret, Tries } from './secrets';
import type { Session, Sessions } from './sessions';

/** Where somebody stands who wants to come in. */
export interface Doorstep {
  readonly deviceId: string | null;
  readonly address: string;
  readonly session: Session | undefined;
}

/** Why somebody did not come in. */
export type TurnedAway = 'wrong' | 'tooOften' | 'wrongPin' | 'passphraseAgain';

export type Entered = { readonly ok: true; readonly token?: string } | { readonly ok: false; readonly why: TurnedAway };

const away = (why: TurnedAway): Entered => ({ ok: false, why });

/** Wrong passphrases in a quarter of an hour, for a name and from an address; wrong PINs in a session. */
const PASSPHRASES = 10;
const PINS = 5;

/** Who comes in, and who goes on where they are known. */
export class Entrance {
  private readonly passphrases: Tries;
  private readonly pins: Tries;

  constructor(
    private readonly database: () => Promise<Queryable>,
    private readonly sessions: Sessions,
  ) {
    this.passphrases = new Tries('passphrase', PASSPHRASES, database);
    this.pins = new Tries('pin', PINS, database);
  }

  /** With a passphrase: also who is told from others only by it gets the same answer, as late. */
  async signIn(name: string, passphrase: string, { deviceId, address, session }: Doorstep): Promise<Entered> {
    const under = [`name ${nameKey(name)}`, `address ${address}`];
    if (!(await this.passphrases.count(...under))) return away('tooOften');
    const database = await this.database();
    const person = (await peopleHere(database)).find((each) => nameKey(each.name) === nameKey(name));
    const credential = person && (await credentialOf(database, person.id));
    if (!(await isSecret(passphrase, credential?.passphrase)) || !person) return away('wrong');
    await this.passphrases.forget(...under);
    return { ok: true, token: await this.sessions.signIn(person.id, deviceId, session) };
  }

  /** With a PIN, where they are known; after too many wrong ones the passphrase is asked for again. */
  async changeHands(session: Session, personId: string, pin: string): Promise<Entered> {
    if (!session.known.includes(personId)) return away('passphraseAgain');
    const under = `${session.id} ${personId}`;
    if (!(await this.pins.count(under))) {
      await this.sessions.forget(session, personId);
      return away('passphraseAgain');
    }
    const credential = await credentialOf(await this.database(), personId);
    if (!(await isSecret(pin, credential?.pin))) return away('wrongPin');
    await this.pins.forget(under);
    await this.sessions.changeHands(session, personId);
    return { ok: true };
  }

  /** Who may go on in a session with a PIN, by name. */
  async knownIn(session: Session | undefined): Promise<NamedPerson[]> {
    return session ? withPin(await this.database(), session.known) : [];
  }
}
