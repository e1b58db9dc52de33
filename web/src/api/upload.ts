import { api, type QueryInputOf, type ResponseOf } from '@caderno/contract';
import { Unreachable, addressOf, failureOf } from './client.ts';

interface Sending {
  /** How much of it is sent, from 0 to 1. */
  readonly onSent: (fraction: number) => void;
  readonly signal: AbortSignal;
}

/** Keeps a file with the project, and tells on the way how much of it is sent: what `fetch` cannot. @throws as {@link call} does. */
export function upload(project: string, query: QueryInputOf<'keepAttachment'>, file: Blob, { onSent, signal }: Sending): Promise<ResponseOf<'keepAttachment'>> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open('POST', addressOf(api.keepAttachment, { params: { project }, query }));
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.upload.onprogress = ({ loaded, total }) => onSent(total === 0 ? 0 : loaded / total);
    request.onerror = () => reject(new Unreachable('The server does not answer'));
    request.onabort = () => reject(new DOMException('Stopped by the person', 'AbortError'));
    request.onload = () => {
      const response = new Response(request.responseText, { status: request.status, headers: { 'content-type': request.getResponseHeader('content-type') ?? '' } });
      if (!response.ok) void failureOf(response).then(reject, reject);
      else response.json().then((answer) => resolve(api.keepAttachment.response.parse(answer))).catch(reject);
    };
    signal.addEventListener('abort', () => request.abort());
    request.send(file);
  });
}
