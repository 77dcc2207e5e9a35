import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { X509Certificate } from 'node:crypto';
import os from 'node:os';
import path from 'node:path';
import { connect, createServer } from 'node:tls';
import { describe, expect, it } from 'vitest';
import { certificatesIn, type Certificates } from '@/server/floor/certificates';
import { Devices } from '@/server/floor/devices';

const folder = () => path.join(mkdtempSync(path.join(os.tmpdir(), 'floor-')), 'floor');
const DAY = 24 * 3600 * 1000;
const NAMES = ['127.0.0.1', 'shop.local'];

/** What a client that trusts the authority says to a server of the certificates under a name. */
function shaken({ authority, key, certificate }: Certificates, servername: string): Promise<true | string> {
  return new Promise((resolve) => {
    const server = createServer({ key, cert: certificate }, (socket) => socket.end());
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      const socket = connect({ port, host: '127.0.0.1', servername, ca: authority }, () => {
        socket.destroy();
        server.close();
        resolve(true);
      });
      socket.on('error', (error) => {
        server.close();
        resolve(error.message);
      });
    });
  });
}

describe('the shop’s own certificates', () => {
  it('are trusted by whoever trusts the authority, under the names they are for and no other', async () => {
    const made = await certificatesIn(folder(), NAMES);
    expect(await shaken(made, 'shop.local')).toBe(true);
    expect(await shaken(made, 'elsewhere.local')).toMatch(/altnames|does not match/);
    expect(
      await shaken({ ...made, authority: (await certificatesIn(folder(), NAMES)).authority }, 'shop.local'),
    ).not.toBe(true);
    expect(new X509Certificate(made.certificate).checkIP('127.0.0.1')).toBe('127.0.0.1');
  });

  it('stay until they come to their end or the names change; the authority stays then too', async () => {
    const at = folder();
    const first = await certificatesIn(at, NAMES);
    expect(await certificatesIn(at, NAMES)).toEqual(first);
    const moved = await certificatesIn(at, [...NAMES, '192.0.2.7']);
    expect([moved.authority, moved.fingerprint]).toEqual([first.authority, first.fingerprint]);
    expect(moved.certificate).not.toBe(first.certificate);
    const later = await certificatesIn(at, NAMES, Date.now() + 380 * DAY);
    expect(later.certificate).not.toBe(moved.certificate);
    expect(later.authority).toBe(first.authority);
    // An authority at its end is made anew, and what it signs with it.
    const decade = await certificatesIn(at, NAMES, Date.now() + 3640 * DAY);
    expect(decade.authority).not.toBe(first.authority);
  });

  it('are good already for a clock that is an hour behind, and made anew from a file that is none', async () => {
    const at = folder();
    const made = await certificatesIn(at, NAMES);
    expect(Date.parse(new X509Certificate(made.certificate).validFrom)).toBeLessThan(Date.now() - 3600 * 1000);
    writeFileSync(path.join(at, 'server.crt'), 'no certificate');
    expect(await shaken(await certificatesIn(at, NAMES), 'shop.local')).toBe(true);
  });

  it('lie where nobody else may read them', async () => {
    const at = folder();
    await certificatesIn(at, NAMES);
    expect(statSync(at).mode & 0o777).toBe(0o700);
    for (const name of ['authority.key', 'server.key']) expect(statSync(path.join(at, name)).mode & 0o077).toBe(0);
  });
});

describe('devices that are let in', () => {
  it('come in with the code that is shown, once, and are known again after a restart', async () => {
    const at = folder();
    const devices = new Devices(at);
    expect(await devices.pair('123456', 'Tablet', 'a')).toEqual({ ok: false, why: 'noCode' });
    const { digits } = devices.newCode();
    const wrong = digits === '000000' ? '000001' : '000000';
    expect(await devices.pair(wrong, 'Tablet', 'a')).toEqual({ ok: false, why: 'wrongCode' });
    const paired = await devices.pair(`${digits.slice(0, 3)} ${digits.slice(3)}`, ' Tablet ', 'a');
    if (!paired.ok) throw new Error(paired.why);
    expect(await devices.pair(digits, 'Another', 'a')).toEqual({ ok: false, why: 'noCode' });
    expect(devices.known(paired.token)?.name).toBe('Tablet');
    const again = new Devices(at);
    expect(again.known(paired.token)?.name).toBe('Tablet');
    expect([again.known('something else'), again.known(undefined)]).toEqual([undefined, undefined]);
    // What it shows is not to be found in the file.
    expect(readFileSync(path.join(at, 'devices.json'), 'utf8')).not.toContain(paired.token);
    again.sendAway(again.listed[0]!.id);
    expect([again.known(paired.token), again.listed]).toEqual([undefined, []]);
    expect(new Devices(at).known(paired.token)).toBeUndefined();
  });

  it('have names of their own, and a code that grows old', async () => {
    let now = Date.parse('2026-11-28T10:00:00Z');
    const devices = new Devices(folder(), () => now);
    const in_ = (name: string, address = 'a') => devices.pair(devices.newCode().digits, name, address);
    expect((await in_('Tablet')).ok).toBe(true);
    expect(await in_('tablet')).toEqual({ ok: false, why: 'nameTaken' });
    expect(await in_('  ')).toEqual({ ok: false, why: 'noName' });
    const { digits } = devices.newCode();
    now += 10 * 60_000;
    expect(devices.currentCode).toBeUndefined();
    expect(await devices.pair(digits, 'Late', 'a')).toEqual({ ok: false, why: 'noCode' });
  });

  it('are not let in by trying all codes', async () => {
    const devices = new Devices(folder());
    const { digits } = devices.newCode();
    const wrong = digits === '000000' ? '000001' : '000000';
    for (let k = 0; k < 10; k++) expect(await devices.pair(wrong, 'X', 'b')).toMatchObject({ why: 'wrongCode' });
    expect(await devices.pair(digits, 'X', 'b')).toEqual({ ok: false, why: 'tooOften' });
    // Somebody else is not kept out by that.
    expect((await devices.pair(digits, 'X', 'c')).ok).toBe(true);
  });
});
