import { connect } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

/** Whether somebody takes connections at a port of this machine within so long. */
export async function answers(port, withinMs) {
  for (let waited = 0; waited <= withinMs; waited += 50) {
    if (await takes(port)) return true;
    await sleep(50);
  }
  return false;
}

function takes(port) {
  return new Promise((resolve) => {
    const socket = connect({ port, host: '127.0.0.1' });
    socket.once('connect', () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
  });
}
