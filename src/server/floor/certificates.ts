import 'reflect-metadata';
import { webcrypto, X509Certificate } from 'node:crypto';
import { chmod, mkdir, readFile, writeFile } from 'node:fs/promises';
import { isIP } from 'node:net';
import path from 'node:path';
import * as x509 from '@peculiar/x509';

x509.cryptoProvider.set(webcrypto as Crypto);

/** What a listener on the network shows, and what a tablet has to trust once. */
export interface Certificates {
  /** The shop's own authority, PEM. */
  readonly authority: string;
  /** Its SHA-256, as people compare it: pairs of digits with colons. */
  readonly fingerprint: string;
  readonly key: string;
  readonly certificate: string;
}

const DAY = 24 * 3600 * 1000;
/** An authority is trusted by hand, once for long; what it signs is renewed by itself. */
const AUTHORITY_DAYS = 3650;
const SERVER_DAYS = 397;
/** It is renewed so long before it ends. */
const RENEWED = 30 * DAY;
/** A clock that is behind by less than this still takes what was made just now. */
const BEHIND = DAY;
const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' } as const;

/**
 * The shop's certificates, from its folder or made now: an authority of its own (ECDSA P-256), and a server's certificate for just
 * these names, renewed when it comes to its end or the names change. Nobody but this user may read the folder.
 *
 * @param names host names and addresses without ports
 */
export async function certificatesIn(
  folder: string,
  names: readonly string[],
  now = Date.now(),
): Promise<Certificates> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await chmod(folder, 0o700);
  const authority = (await kept(folder, 'authority', now)) ?? (await newAuthority(folder, now));
  const own = await kept(folder, 'server', now);
  const stands = own && isFor(own.certificate, names) && isFrom(own.certificate, authority.certificate);
  const server = stands ? own : await newServer(folder, authority, names, now);
  return {
    authority: authority.certificate,
    fingerprint: new X509Certificate(authority.certificate).fingerprint256,
    key: server.key,
    certificate: server.certificate,
  };
}

interface Pair {
  readonly key: string;
  readonly certificate: string;
}

/** A key and its certificate as they lie in the folder; undefined where there is none, or it comes to its end. */
async function kept(folder: string, name: string, now: number): Promise<Pair | undefined> {
  try {
    const [key, certificate] = await Promise.all(
      ['key', 'crt'].map((kind) => readFile(path.join(folder, `${name}.${kind}`), 'utf8')),
    );
    const { validFrom, validTo } = new X509Certificate(certificate!);
    const stands = Date.parse(validFrom) <= now && Date.parse(validTo) > now + RENEWED;
    return stands ? { key: key!, certificate: certificate! } : undefined;
  } catch {
    // Missing or unreadable: a new one is made.
    return undefined;
  }
}

const isFor = (certificate: string, names: readonly string[]): boolean => {
  const said = new X509Certificate(certificate);
  return names.every((name) => (isIP(name) ? said.checkIP(name) : said.checkHost(name)) !== undefined);
};

const isFrom = (certificate: string, authority: string): boolean =>
  new X509Certificate(certificate).verify(new X509Certificate(authority).publicKey);

async function newAuthority(folder: string, now: number): Promise<Pair> {
  const keys = await newKeys();
  const certificate = await x509.X509CertificateGenerator.createSelfSigned({
    ...{ serialNumber: serial(), name: 'CN=Vinkel in this shop', signingAlgorithm: ALGORITHM, keys },
    ...span(now, AUTHORITY_DAYS),
    extensions: [
      new x509.BasicConstraintsExtension(true, 0, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  return write(folder, 'authority', keys, certificate);
}

async function newServer(folder: string, authority: Pair, names: readonly string[], now: number): Promise<Pair> {
  const [keys, signingKey] = await Promise.all([newKeys(), privateKeyOf(authority.key)]);
  const issuer = new x509.X509Certificate(authority.certificate);
  const certificate = await x509.X509CertificateGenerator.create({
    ...{ serialNumber: serial(), subject: `CN=${names[0]!}`, issuer: issuer.subject, signingAlgorithm: ALGORITHM },
    ...{ publicKey: keys.publicKey, signingKey },
    ...span(now, SERVER_DAYS),
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
      new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
      new x509.SubjectAlternativeNameExtension(
        names.map((name) => ({ type: isIP(name) ? ('ip' as const) : ('dns' as const), value: name })),
      ),
      await x509.AuthorityKeyIdentifierExtension.create(issuer),
    ],
  });
  return write(folder, 'server', keys, certificate);
}

const newKeys = () => webcrypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']) as Promise<CryptoKeyPair>;

const privateKeyOf = (pem: string) =>
  webcrypto.subtle.importKey('pkcs8', x509.PemConverter.decode(pem)[0]!, ALGORITHM, false, [
    'sign',
  ]) as Promise<CryptoKey>;

const span = (now: number, days: number) => ({
  notBefore: new Date(now - BEHIND),
  notAfter: new Date(now - BEHIND + days * DAY),
});

/** 16 bytes by chance, the first bit nought: a serial number is positive. */
function serial(): string {
  const bytes = webcrypto.getRandomValues(new Uint8Array(16));
  bytes[0] = (bytes[0]! & 0x7f) | 0x40;
  return Buffer.from(bytes).toString('hex');
}

async function write(folder: string, name: string, keys: CryptoKeyPair, made: x509.X509Certificate): Promise<Pair> {
  const key = `${x509.PemConverter.encode(await webcrypto.subtle.exportKey('pkcs8', keys.privateKey), 'PRIVATE KEY')}\n`;
  const certificate = `${made.toString('pem')}\n`;
  await writeFile(path.join(folder, `${name}.key`), key, { mode: 0o600 });
  await writeFile(path.join(folder, `${name}.crt`), certificate, { mode: 0o600 });
  return { key, certificate };
}
