import { BlockList, isIP } from 'node:net';
import { getConnInfo } from '@hono/node-server/conninfo';
import type { Context } from 'hono';

/** An address, or a net as `10.0.0.0/8`, of a proxy. */
const NET = /^(.+?)(?:\/(\d{1,3}))?$/;

/** Whether this names an address or a net. */
export function isNet(text: string): boolean {
  const [, address = '', bits] = NET.exec(text) ?? [];
  const family = isIP(address);
  return family !== 0 && (bits === undefined || Number(bits) <= (family === 4 ? 32 : 128));
}

/** The proxies that pass requests on: only they are believed where a request comes from, and how. */
export class Proxies {
  readonly #nets = new BlockList();
  readonly #none: boolean;

  /** @throws {RangeError} when one is neither an address nor a net. */
  constructor(nets: readonly string[]) {
    this.#none = nets.length === 0;
    for (const net of nets) this.#add(net);
  }

  #add(net: string): void {
    const [, address = '', bits] = NET.exec(net) ?? [];
    if (!isNet(net)) throw new RangeError(`A proxy is named by its address: expected one, got ${net}`);
    const family = isIP(address) === 4 ? 'ipv4' : 'ipv6';
    if (bits === undefined) this.#nets.addAddress(address, family);
    else this.#nets.addSubnet(address, Number(bits), family);
  }

  /** Whether a request was passed on by one of them. */
  passedOn(c: Context): boolean {
    const address = addressOf(c);
    if (this.#none) return false;
    // Called within the process, by whoever holds the server in hands.
    if (address === null) return true;
    const plain = address.replace(/^::ffff:(?=\d+\.)/, '');
    return this.#nets.check(plain, isIP(plain) === 4 ? 'ipv4' : 'ipv6');
  }
}

/** Whoever is at the other end of the connection; null without one. */
export function addressOf(c: Context): string | null {
  return c.env !== undefined && 'incoming' in c.env ? (getConnInfo(c).remote.address ?? 'unknown') : null;
}
