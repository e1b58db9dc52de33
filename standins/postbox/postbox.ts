import { randomUUID } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import PostalMime from 'postal-mime';
import { SMTPServer, type SMTPServerDataStream } from 'smtp-server';

/** A mail that was taken. */
export interface TakenMail {
  readonly id: string;
  readonly at: Date;
  readonly from: string;
  readonly to: readonly string[];
  readonly subject: string;
  readonly text: string;
}

/** How well it behaves. */
export interface PostboxMood {
  /** No mail is taken for now: each is to be tried again (RFC 5321, 451). */
  busy: boolean;
}

/** Mails kept; earlier ones make room. */
const MOST = 500;
/** Bytes of a mail. */
const LARGEST = 2 * 1024 * 1024;

/** A simulated mail server (SMTP, RFC 5321) on loopback: it takes every mail and sends none on. Nobody is at an address that begins with `nobody@`. */
export class Postbox {
  readonly mood: PostboxMood = { busy: false };
  readonly #mails: TakenMail[] = [];
  readonly #server: SMTPServer;

  constructor() {
    this.#server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      disableReverseLookup: true,
      size: LARGEST,
      onAuth: (auth, _, callback) => (auth.password === 'wrong' ? callback(new Error('The account or its password is wrong')) : callback(null, { user: auth.username })),
      onRcptTo: (address, _, callback) => callback(this.#refusal(address.address)),
      onData: (stream, session, callback) => {
        this.#take(stream, session.envelope.rcptTo.map((r) => r.address)).then(() => callback(), callback);
      },
    });
  }

  /** The latest first. */
  get mails(): readonly TakenMail[] {
    return this.#mails;
  }

  /** Answers the port it listens to; 0 asks for a free one. */
  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.#server.once('error', reject);
      const listening = this.#server.listen(port, '127.0.0.1', () => resolve((listening.address() as AddressInfo).port));
    });
  }

  close(): Promise<void> {
    return new Promise((resolve) => this.#server.close(() => resolve()));
  }

  #refusal(address: string): Error | null {
    if (this.mood.busy) return Object.assign(new Error('Too busy, try again later'), { responseCode: 451 });
    return address.startsWith('nobody@') ? Object.assign(new Error('Nobody has this address'), { responseCode: 550 }) : null;
  }

  async #take(stream: SMTPServerDataStream, to: readonly string[]): Promise<void> {
    const chunks: Buffer[] = [];
    for await (const chunk of stream) chunks.push(chunk as Buffer);
    const { from, subject = '', text = '' } = await PostalMime.parse(Buffer.concat(chunks));
    this.#mails.unshift({ id: randomUUID(), at: new Date(), from: from?.address ?? '', to, subject, text });
    this.#mails.length = Math.min(this.#mails.length, MOST);
  }
}
