import type { PlacedIssue } from '../placedIssue.ts';
import type { Refusals } from './refusals.ts';

/** What is refused of any request, whatever it asks for. */
export type RequestRefusal =
  | { readonly code: 'request_invalid'; readonly issues: readonly PlacedIssue[] }
  | { readonly code: 'body_unreadable' }
  | { readonly code: 'body_type_unsupported'; readonly expected: string }
  | { readonly code: 'body_too_large'; readonly limit: number }
  | { readonly code: 'body_too_slow'; readonly seconds: number }
  | { readonly code: 'origin_forged' }
  | { readonly code: 'route_unknown' }
  | { readonly code: 'files_unavailable' }
  | { readonly code: 'database_unavailable' }
  | { readonly code: 'disk_full' }
  | { readonly code: 'server_stopping' }
  | { readonly code: 'host_unknown'; readonly host: string }
  | { readonly code: 'command_id_taken' }
  | { readonly code: 'too_much_at_once'; readonly seconds: number }
  /** Another command holds what this one needs, for longer than one waits. */
  | { readonly code: 'project_busy'; readonly seconds: number }
  | { readonly code: 'too_many_streams'; readonly limit: number }
  | { readonly code: 'computation_too_heavy' }
  | { readonly code: 'fault'; readonly reference: string };

/** Their statuses, and what is said of each. */
export const REQUEST_REFUSALS: Refusals<RequestRefusal> = {
  request_invalid: { status: 400, sentence: (refusal) => `This could not be taken as it is: ${refusal.issues.slice(0, 3).map((i) => `${i.path || 'the request'} ${i.message}`).join('; ')}. Nothing was changed.` },
  body_unreadable: { status: 400, sentence: () => 'The request is not readable JSON. Nothing was changed.' },
  body_type_unsupported: { status: 415, sentence: (refusal) => `The request must be sent as ${refusal.expected}. Nothing was changed.` },
  body_too_large: { status: 413, sentence: (refusal) => `This is larger than the ${Math.floor(refusal.limit / 1024 / 1024)} MB a request may have. Nothing was changed; make it smaller or split it.` },
  body_too_slow: { status: 408, sentence: (refusal) => `This did not arrive within ${refusal.seconds} seconds and was not taken in. Nothing was changed; try again on a better line, or with something smaller.` },
  origin_forged: { status: 403, sentence: () => 'The request did not come from Caderno’s own pages and was refused. Nothing was changed.' },
  route_unknown: { status: 404, sentence: () => 'There is nothing at this address.' },
  files_unavailable: { status: 503, sentence: () => 'The store of pictures and files does not answer. Nothing was changed; try again in a moment, and tell whoever looks after the server.' },
  database_unavailable: { status: 503, sentence: () => 'The database does not answer just now. What you type is kept here and sent as soon as it does.' },
  disk_full: { status: 507, sentence: () => 'The disk of the server is full. What you type is kept here and saved as soon as there is room; whoever looks after the server has to make some.' },
  server_stopping: { status: 503, sentence: () => 'The server is being stopped or restarted. What you type is kept here and sent as soon as it is back.' },
  host_unknown: { status: 421, sentence: (refusal) => `This server is not known as ‘${refusal.host}’. Whoever started it can add the name: CADERNO_HOSTS.` },
  command_id_taken: { status: 409, sentence: () => 'This request carries the id of another one and was not carried out. Nothing was changed; try again.' },
  too_much_at_once: { status: 429, sentence: (refusal) => `You have too much under way at once. Wait ${refusal.seconds} seconds and try again; nothing was changed.` },
  project_busy: { status: 503, sentence: () => 'Something long is being carried out in this project, as an import. Nothing was changed; what you type is kept here and sent as soon as it is done.' },
  too_many_streams: { status: 429, sentence: (refusal) => `More than ${refusal.limit} pages are open at once. Close some and reload.` },
  computation_too_heavy: { status: 422, sentence: () => 'This takes more time or memory than is given to one question. Nothing was changed; make the models or patterns it has to look through smaller.' },
  fault: { status: 500, sentence: (refusal) => `Something went wrong on our side (${refusal.reference}). What you typed is kept; try again.` },
};
