// TLS for tablets on the local network: the programme's own certificate, or one made here.
import { X509Certificate } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { DATA, ensureDebianPackage, run, StepFailed, say } from './system.mjs';

const DAYS = 397;

/**
 * The certificate to serve an address with.
 *
 * @param host the address listened on
 * @param own files of a certificate and key of one's own, if given
 * @param data where what is made is kept
 * @returns the files, and the SHA-256 fingerprint that a tablet shows
 */
export function certificateFor(host, own = {}, data = DATA) {
  if (Boolean(own.cert) !== Boolean(own.key))
    throw new StepFailed('a certificate needs its key', 'give both --cert FILE and --key FILE, in PEM.');
  const files = own.cert ? own : makeCertificate(host, data);
  for (const file of [files.cert, files.key]) {
    if (!existsSync(file)) throw new StepFailed(`there is no file ${file}`, 'check the path.');
  }
  const certificate = read(files.cert);
  if (Date.parse(certificate.validTo) < Date.now())
    throw new StepFailed(`the certificate ended on ${certificate.validTo}`, 'give one that is still valid.');
  return { ...files, fingerprint: certificate.fingerprint256 };
}

function read(file) {
  try {
    return new X509Certificate(readFileSync(file));
  } catch (error) {
    throw new StepFailed(`${file} is no certificate in PEM (${error.message})`, 'give a PEM file.');
  }
}

/** Made once for an address and kept, so that its fingerprint stays the one that was checked on the tablets. */
function makeCertificate(host, data) {
  const folder = path.join(data, 'tls');
  const files = { cert: path.join(folder, `${slug(host)}.crt`), key: path.join(folder, `${slug(host)}.key`) };
  const fresh = existsSync(files.cert) && Date.parse(read(files.cert).validTo) > Date.now() + 7 * 86_400_000;
  if (fresh) return files;
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  say(`Making a certificate for ${host} …`);
  const names = namesOf(host).map((name) => (/^[\d.]+$|:/.test(name) ? `IP:${name}` : `DNS:${name}`));
  // The key is created by openssl with mode 0600.
  run(ensureDebianPackage('openssl', 'openssl'), [
    ...['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes', '-sha256'],
    ...['-days', String(DAYS), '-subj', '/CN=Logistra bench', '-addext', `subjectAltName=${names.join(',')}`],
    ...['-addext', 'extendedKeyUsage=serverAuth', '-keyout', files.key, '-out', files.cert],
  ]);
  return files;
}

const slug = (host) => host.replace(/[^\w.-]/g, '_');

/** An address that stands for all of this machine's is certified for each of them. */
function namesOf(host) {
  if (host !== '0.0.0.0' && host !== '::') return [host];
  const own = Object.values(os.networkInterfaces()).flatMap((entries) => entries ?? []);
  return [os.hostname(), ...own.map(({ address }) => address.split('%')[0])];
}
