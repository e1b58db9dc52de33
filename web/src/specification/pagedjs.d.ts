/** What is used of the library, which comes without types of its own. */
declare module 'pagedjs' {
  export class Previewer {
    readonly chunker: { stop(): void };
    readonly polisher: { destroy(): void };
    on(event: 'page', hear: () => void): void;
    preview(content: DocumentFragment, stylesheets: readonly Readonly<Record<string, string>>[], renderTo: HTMLElement): Promise<{ readonly total: number }>;
  }
}
