/** The events of a stream. Named here alone: the shared worker has no use for the rest of the contract. */
const EVENTS = ['open', 'changes', 'coverage', 'remarked', 'reviewed', 'frozen', 'delivered'] as const;

/** What a tab says to whoever holds the streams. */
export type FromTab = { readonly kind: 'hello'; readonly address: string } | { readonly kind: 'bye' };

/** What a tab is told. `data` is JSON text as it came; the tab reads it. */
export type ToTab =
  | { readonly kind: 'connected'; readonly connected: boolean }
  /** The stream was open before: what came until now is to be asked for. */
  | { readonly kind: 'joined' }
  | { readonly kind: 'news'; readonly event: (typeof EVENTS)[number]; readonly data: string }
  /** The server said no: the session may be over. */
  | { readonly kind: 'refused' };

export type Tab = (message: ToTab) => void;

/** After an answer that ends the stream it is opened again. */
const REOPEN_MS = 3_000;

interface Stream {
  source: EventSource;
  connected: boolean;
  reopening: ReturnType<typeof setTimeout> | undefined;
  readonly tabs: Set<Tab>;
}

/** One event stream a project, whatever the number of tabs that look at it; it ends with the last of them. */
export class StreamHub {
  readonly #open: (address: string) => EventSource;
  readonly #streams = new Map<string, Stream>();

  constructor(open: (address: string) => EventSource) {
    this.#open = open;
  }

  /** Answers how the tab leaves. */
  join(address: string, tab: Tab): () => void {
    const there = this.#streams.get(address);
    const stream = there ?? this.#begin(address);
    stream.tabs.add(tab);
    if (there !== undefined) {
      // Who comes back after a session that was over does not wait for the next try.
      if (there.source.readyState === EventSource.CLOSED) this.#listen(address, there);
      tab({ kind: 'connected', connected: there.connected });
      tab({ kind: 'joined' });
    }
    return () => {
      stream.tabs.delete(tab);
      if (stream.tabs.size > 0) return;
      clearTimeout(stream.reopening);
      stream.source.close();
      if (this.#streams.get(address) === stream) this.#streams.delete(address);
    };
  }

  #begin(address: string): Stream {
    const stream: Stream = { source: this.#open(address), connected: false, reopening: undefined, tabs: new Set() };
    this.#streams.set(address, stream);
    this.#hear(address, stream);
    return stream;
  }

  #listen(address: string, stream: Stream): void {
    clearTimeout(stream.reopening);
    stream.source.close();
    stream.source = this.#open(address);
    this.#hear(address, stream);
  }

  #hear(address: string, stream: Stream): void {
    const { source } = stream;
    const tell = (message: ToTab): void => {
      for (const tab of [...stream.tabs]) tab(message);
    };
    for (const event of EVENTS) {
      source.addEventListener(event, (message: MessageEvent) => {
        // The browser's own 'open', that the connection stands, carries nothing.
        if (typeof message.data === 'string') tell({ kind: 'news', event, data: message.data });
      });
    }
    source.addEventListener('open', () => {
      stream.connected = true;
      tell({ kind: 'connected', connected: true });
    });
    source.addEventListener('error', () => {
      stream.connected = false;
      tell({ kind: 'connected', connected: false });
      if (source.readyState !== EventSource.CLOSED) return;
      // The server answered and said no, which a browser takes for good: the session may be over, or it was busy.
      tell({ kind: 'refused' });
      stream.reopening = setTimeout(() => this.#listen(address, stream), REOPEN_MS);
    });
  }
}
