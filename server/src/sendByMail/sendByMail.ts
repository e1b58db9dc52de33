import type { Asking } from '@caderno/core/find';
import { configurationNames, personalShares } from '@caderno/core/handOffs';
import { KIND_NAME, STATE_WORD, artefactLink, roleReaches, type Role, type SendByMail, type Summary } from '@caderno/contract';
import { z } from 'zod';
import { findArtefact, readContent, selectSummaries } from '../artefacts/index.ts';
import { readStored } from '../handOffs/index.ts';
import { selectRows, type ArtefactRow, type UnitOfWork } from '../database/index.ts';
import { DomainError } from '../domainError.ts';
import { listByQuery } from '../find/index.ts';
import { letterText, refuseTooMany, type Letter, type Mailing } from '../mail/index.ts';
import { listMembers, type SignedIn } from '../people/index.ts';

/** Titles of a list that its mail tells. */
const MOST_TOLD = 100;

/** Who sends, and from where. */
export interface Sender {
  readonly by: SignedIn;
  readonly role: Role;
  readonly projectId: string;
  readonly asking: Asking;
}

/**
 * Sends an artefact or a list to some people: a note, what it is, and a link; one mail each.
 * @throws {DomainError} when a reader sends to somebody outside, or somebody sends more than anybody may.
 */
export async function sendByMail(work: UnitOfWork, mailing: Mailing, sender: Sender, { to, of, note }: SendByMail): Promise<void> {
  const recipients = await recipientsOf(work, sender, to);
  await refuseTooMany(work, sender.by.id, recipients.length, mailing.at);
  const letter = await letterOf(work, mailing.address, sender, of, note);
  for (const recipient of recipients) await mailing.post(work, { to: recipient, ...letter, by: sender.by.id, projectId: sender.projectId, shown: true });
}

/** Each once, by their address. */
async function recipientsOf(work: UnitOfWork, { role, projectId }: Sender, to: SendByMail['to']): Promise<Letter['to'][]> {
  const members = await listMembers(work, projectId);
  const recipients = new Map<string, Letter['to']>();
  for (const one of to) {
    const member = members.find((m) => ('person' in one ? m.id === one.person : m.email === one.address.toLowerCase()));
    if (member === undefined && 'person' in one) throw new DomainError({ code: 'person_unknown' });
    if (member === undefined && !roleReaches(role, 'analyst')) throw new DomainError({ code: 'mail_outside' });
    const address = member?.email ?? ('address' in one ? one.address.toLowerCase() : '');
    recipients.set(address, { name: member?.name ?? '', address });
  }
  return [...recipients.values()];
}

const projectRow = z.object({ key: z.string(), name: z.string() });

async function letterOf(work: UnitOfWork, server: string, sender: Sender, of: SendByMail['of'], note: string): Promise<Pick<Letter, 'subject' | 'text'>> {
  const [project] = await selectRows(work, projectRow, 'SELECT key, name FROM project WHERE id = $1', [sender.projectId]);
  if (project === undefined) throw new Error(`A project that somebody is in is there: expected one, got none with ${sender.projectId}`);
  const { subject, paragraphs } = await wordsOf(work, server, project.key, sender, of);
  return { subject, text: letterText({ paragraphs: [note.trim(), ...paragraphs], why: `${sender.by.name} (${sender.by.email}) sent you this from “${project.name}” in Caderno. An answer to this mail does not reach them: write to their address.` }) };
}

function wordsOf(work: UnitOfWork, server: string, key: string, sender: Sender, of: SendByMail['of']): Promise<Words> {
  switch (of.what) {
    case 'artefact':
      return artefactWords(work, server, key, sender, of.id);
    case 'list':
      return listWords(work, server, key, sender, of);
    case 'handOff':
      return partWords(work, server, key, sender, of);
  }
}

/** What somebody executes by hand. @throws {DomainError} when that is nothing. */
async function partWords(work: UnitOfWork, server: string, key: string, { by, projectId }: Sender, { number, person }: Extract<SendByMail['of'], { what: 'handOff' }>): Promise<Words> {
  const { name, note, due, lines, configurations } = await readStored(work, projectId, number);
  const own = lines.filter((line) => line.person === person && line.execution === 'byHand');
  const [share] = personalShares(own);
  if (share === undefined) throw new DomainError({ code: 'hand_off_part_empty' });
  const names = configurationNames(configurations);
  const more = own.length - MOST_TOLD;
  const told = own.slice(0, MOST_TOLD).map((line) => `${line.of} ${line.title}${line.configuration === null ? '' : `, in ${names.get(line.configuration) ?? line.configuration}`}${line.instances === 1 ? '' : `, ${line.instances} times`}${line.minutes === null ? '' : `, ${minutesText(line.minutes * line.instances)}`}`);
  const whole = `${share.instances} ${share.instances === 1 ? 'instance' : 'instances'}${share.minutes === 0 ? '' : `, ${minutesText(share.minutes)}`}${due === null ? '' : `, to be done by ${due}`}`;
  return {
    subject: `${by.name}: H-${number} ${name}, the part of ${person}`,
    paragraphs: [`H-${number} ${name}, the part of ${person}: ${whole}`, note.trim(), `There it is saved as a workbook, or as a page that is ticked without a network:\n${server}/${key}/hand-offs/${number}`, [...told, ...(more > 0 ? [`and ${more} more`] : [])].join('\n')],
  };
}

/** With a tenth of a minute at most: sums of such have no more to say. */
function minutesText(minutes: number): string {
  const rounded = Math.round(minutes * 10) / 10;
  return `${rounded} ${rounded === 1 ? 'minute' : 'minutes'}`;
}

async function questionText(work: UnitOfWork, row: ArtefactRow): Promise<string> {
  const content = await readContent(work, row, row.head);
  return content.kind === 'question' ? content.content.text : '';
}

interface Words {
  readonly subject: string;
  readonly paragraphs: readonly string[];
}

async function artefactWords(work: UnitOfWork, server: string, key: string, { by, projectId }: Sender, id: Extract<SendByMail['of'], { what: 'artefact' }>['id']): Promise<Words> {
  const row = await findArtefact(work, projectId, id);
  const [summary] = await selectSummaries(work, 'a.id = $1', [row.id], 'a.number');
  if (summary === undefined) throw new DomainError({ code: 'artefact_unknown', id });
  const asked = summary.kind === 'question' ? await questionText(work, row) : '';
  return { subject: `${by.name}: ${summary.id} ${summary.title}`, paragraphs: [lineOf(summary), asked, artefactLink(server, key, summary.id)] };
}

async function listWords(work: UnitOfWork, server: string, key: string, { by, projectId, asking }: Sender, { kind, query }: Extract<SendByMail['of'], { what: 'list' }>): Promise<Words> {
  const found = await listByQuery(work, projectId, kind, query, asking);
  const what = `${found.length.toLocaleString('en-GB')} ${KIND_NAME[kind][found.length === 1 ? 0 : 1]}${query === '' ? '' : ` of “${query}”`}`;
  const more = found.length - MOST_TOLD;
  const lines = [...found.slice(0, MOST_TOLD).map(lineOf), ...(more > 0 ? [`and ${more.toLocaleString('en-GB')} more`] : [])];
  return { subject: `${by.name}: ${what}`, paragraphs: [`${what}, as it is now:\n${server}/${key}/list/${kind}?${new URLSearchParams({ query }).toString()}`, lines.join('\n')] };
}

function lineOf({ id, title, state, version }: Summary): string {
  return `${id} ${title} (v${version}, ${STATE_WORD[state].toLowerCase()})`;
}
