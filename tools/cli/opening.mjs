import { existsSync, readFileSync } from 'node:fs';
import { X509Certificate, createPrivateKey } from 'node:crypto';
import { isIP } from 'node:net';
import path from 'node:path';
import { Stop, takeOption } from './say.mjs';

/**
 * How `start` opens Maypole to others, from its options; undefined if it does not. Passwords must not cross a readable
 * wire, so it takes a certificate, or a proxy that has one.
 */
export function takeOpening(args) {
  const asked = ['--open', '--certificate', '--key', '--behind', '--listen'].map((flag) => takeOption(args, flag));
  const [names, certificate, key, behind, listen] = asked;
  if (asked.every((a) => a === undefined)) return undefined;
  if (!names)
    throw new Stop('To open Maypole to others, say by which names they come: --open maypole.studio.example', 2);
  const hosts = names.split(',').map((n) => n.trim());
  const odd = hosts.find((h) => !/^[a-z0-9.-]+$/i.test(h));
  if (odd !== undefined)
    throw new Stop(`“${odd}” is not a host name; write it without https:// and without a port.`, 2);
  if (Boolean(certificate) !== Boolean(key))
    throw new Stop('--certificate and --key belong together: both are files in PEM form.', 2);
  if (!certificate && !behind)
    throw new Stop(
      'Open to others, passwords must not go over the wire as they are. Give --certificate FILE and --key FILE, or, where a proxy does TLS, --behind with its address.',
      2,
    );
  if (listen !== undefined && !isIP(listen)) throw new Stop(`“${listen}” is not an address to listen on.`, 2);
  if (certificate) checkPair(certificate, key);
  const proxies = (behind ?? '')
    .split(',')
    .map((p) => p.trim())
    .filter(Boolean);
  for (const proxy of proxies)
    if (!isIP(proxy.split('/')[0]))
      throw new Stop(`“${proxy}” is not the address of a proxy; write 127.0.0.1, or a range as 10.0.0.0/8.`, 2);
  const local = proxies.length > 0 && proxies.every((p) => p.startsWith('127.') || p === '::1');
  const to = listen ?? (local ? '127.0.0.1' : '0.0.0.0');
  return {
    hosts,
    tls: Boolean(certificate),
    address: (port) => (behind ? `https://${hosts[0]}` : `https://${hosts[0]}${port === 443 ? '' : `:${port}`}`),
    env: {
      MAYPOLE_OPEN: '1',
      MAYPOLE_HOSTS: [process.env.MAYPOLE_HOSTS, ...hosts].filter(Boolean).join(','),
      MAYPOLE_PROXIES: proxies.join(','),
      MAYPOLE_ADDRESS_TO_LISTEN: to,
      ...(certificate
        ? { MAYPOLE_CERTIFICATE: path.resolve(certificate), MAYPOLE_CERTIFICATE_KEY: path.resolve(key) }
        : {}),
    },
  };
}

/** Certificate and key are read before anything starts. */
function checkPair(certificate, key) {
  for (const file of [certificate, key]) if (!existsSync(file)) throw new Stop(`There is no file ${file}.`, 2);
  let pair;
  try {
    pair = { of: new X509Certificate(readFileSync(certificate)), key: createPrivateKey(readFileSync(key)) };
  } catch (error) {
    throw new Stop(
      `${certificate} and ${key} cannot be read as a certificate and its key in PEM form: ${error.message}`,
      2,
    );
  }
  if (!pair.of.checkPrivateKey(pair.key))
    throw new Stop(`The key ${key} is not that of the certificate ${certificate}.`, 2);
  if (new Date(pair.of.validTo) < new Date())
    throw new Stop(`The certificate ${certificate} was good until ${pair.of.validTo}; get a new one.`, 2);
}
