import { StreamHub, type FromTab } from './streamHub.ts';

/** All tabs of the browser share this worker, and with it one connection a project: a browser has six to a server. */
const hub = new StreamHub((address) => new EventSource(address));

addEventListener('connect', (event) => {
  if (!(event instanceof MessageEvent)) return;
  const [port] = event.ports;
  if (port === undefined) return;
  let leave = (): void => undefined;
  port.onmessage = ({ data }: MessageEvent<FromTab>) => {
    leave();
    leave = data.kind === 'hello' ? hub.join(data.address, (message) => port.postMessage(message)) : () => undefined;
  };
});
