import { lookup } from 'node:dns/promises';
import { BlockList, isIP, type LookupFunction } from 'node:net';
import { Agent } from 'undici';
import { TrackerFailed } from './trackerFailed.ts';

const nowhere = new BlockList();
// Link-local: the neighbours of this machine, and what a cloud tells its own machines (RFC 3927, RFC 4291).
nowhere.addSubnet('169.254.0.0', 16, 'ipv4');
nowhere.addSubnet('fe80::', 10, 'ipv6');
// "This host" (RFC 1122) reaches loopback on many systems; several hosts at once are none.
nowhere.addSubnet('0.0.0.0', 8, 'ipv4');
nowhere.addAddress('::', 'ipv6');
nowhere.addSubnet('224.0.0.0', 3, 'ipv4');
nowhere.addSubnet('ff00::', 8, 'ipv6');

/** Whether a host is among those allowed: by its name alone for its usual ports, or with its port. */
export function isAllowed(address: URL, allowed: readonly string[]): boolean {
  const name = address.hostname.toLowerCase();
  const usual = address.port === '' || address.port === '80' || address.port === '443';
  return allowed.includes(`${name}:*`) || allowed.includes(`${name}:${address.port || (address.protocol === 'https:' ? '443' : '80')}`) || (usual && allowed.includes(name));
}

/** @throws TrackerFailed as for a host that does not answer: whoever asks learns nothing of what is there. */
export function refuseOutside(address: URL, allowed: readonly string[]): void {
  if (!isAllowed(address, allowed) || leadsNowhere(address.hostname)) throw new TrackerFailed('unreachable');
}

/** Looks at every address a name leads to, when it is connected to: a name may lead elsewhere from one moment to the next. */
const guardedLookup: LookupFunction = (name, options, callback) => {
  lookup(name, { all: true, family: options.family === 'IPv4' ? 4 : options.family === 'IPv6' ? 6 : (options.family ?? 0) }).then(
    (found) => {
      // This machine is reached by its own name only, so that no other name leads there.
      const usable = found.filter(({ address }) => !leadsNowhere(address) && (name === 'localhost' || !isLoopback(address)));
      const [first] = usable;
      if (first === undefined) callback(new Error('No address that may be asked'), '', 0);
      else if (options.all === true) callback(null, usable);
      else callback(null, first.address, first.family);
    },
    (error: NodeJS.ErrnoException) => callback(error, '', 0),
  );
};

const loopback = new BlockList();
loopback.addSubnet('127.0.0.0', 8, 'ipv4');
loopback.addAddress('::1', 'ipv6');

function isLoopback(address: string): boolean {
  return loopback.check(address, isIP(address) === 6 ? 'ipv6' : 'ipv4');
}

/** Link-local and the like, also written as an IPv6 address of an IPv4 one. */
export function leadsNowhere(address: string): boolean {
  const plain = address.replace(/^\[|\]$/g, '').replace(/^::ffff:(?=\d+\.)/i, '');
  const family = isIP(plain);
  return family !== 0 && nowhere.check(plain, family === 6 ? 'ipv6' : 'ipv4');
}

/** Connects to hosts outside, never to what leads nowhere. */
export const outsideAgent = new Agent({ connect: { lookup: guardedLookup, timeout: 5_000 }, pipelining: 0 });
