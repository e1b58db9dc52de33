import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { StreamHub, type ToTab } from './streamHub.ts';

/** An event source that says what the test has it say. */
class Source extends EventTarget {
  static readonly CLOSED = 2;
  static made: Source[] = [];
  readyState = 0;
  readonly address: string;
  constructor(address: string) {
    super();
    this.address = address;
    Source.made.push(this);
  }
  close(): void {
    this.readyState = Source.CLOSED;
  }
  says(event: string, data?: string): void {
    this.dispatchEvent(data === undefined ? new Event(event) : new MessageEvent(event, { data }));
  }
}

const open = (address: string): EventSource => new Source(address) as unknown as EventSource;
const tab = (): { readonly heard: ToTab[]; readonly take: (message: ToTab) => void } => {
  const heard: ToTab[] = [];
  return { heard, take: (message) => heard.push(message) };
};

beforeEach(() => {
  Source.made = [];
  Object.assign(globalThis, { EventSource: Source });
  jest.useFakeTimers();
});
afterEach(() => void jest.useRealTimers());

describe('one stream for all tabs', () => {
  test('seven tabs share one; each hears everything; it ends with the last', () => {
    const hub = new StreamHub(open);
    const tabs = Array.from({ length: 7 }, tab);
    const leave = tabs.map((t) => hub.join('/events', t.take));
    expect(Source.made).toHaveLength(1);
    Source.made[0]?.says('open');
    Source.made[0]?.says('changes', '{"kind":"ask"}');
    for (const { heard } of tabs) expect(heard.slice(-2)).toEqual([{ kind: 'connected', connected: true }, { kind: 'news', event: 'changes', data: '{"kind":"ask"}' }]);
    // Who came later asks for what was told before.
    expect(tabs[6]?.heard.map((m) => m.kind)).toContain('joined');
    expect(tabs[0]?.heard.map((m) => m.kind)).not.toContain('joined');
    leave.slice(1).forEach((l) => l());
    expect(Source.made[0]?.readyState).toBe(0);
    leave[0]?.();
    expect(Source.made[0]?.readyState).toBe(Source.CLOSED);
    hub.join('/events', tab().take);
    expect(Source.made).toHaveLength(2);
  });

  test('a server that says no is asked again after a while, at once by a tab that comes anew, and by nobody when all have gone', () => {
    const hub = new StreamHub(open);
    const one = tab();
    const leave = hub.join('/events', one.take);
    const refuse = (): void => {
      Source.made.at(-1)?.close();
      Source.made.at(-1)?.says('error');
    };
    refuse();
    expect(one.heard).toEqual([{ kind: 'connected', connected: false }, { kind: 'refused' }]);
    jest.advanceTimersByTime(3_000);
    expect(Source.made).toHaveLength(2);
    refuse();
    const leaveToo = hub.join('/events', tab().take);
    expect(Source.made).toHaveLength(3);
    jest.advanceTimersByTime(9_000);
    expect(Source.made).toHaveLength(3);
    refuse();
    leave();
    leaveToo();
    jest.advanceTimersByTime(9_000);
    expect(Source.made).toHaveLength(3);
  });

  test('a connection that is lost is the browser’s to mend', () => {
    const hub = new StreamHub(open);
    const one = tab();
    hub.join('/events', one.take);
    Source.made[0]?.says('error');
    jest.advanceTimersByTime(9_000);
    expect([Source.made.length, one.heard]).toEqual([1, [{ kind: 'connected', connected: false }]]);
  });
});
