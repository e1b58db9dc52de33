import { STATUS_OF_REFUSAL, type Refusal } from '@caderno/contract';

/** What a page sends with progress, held until a test says how it goes on. */
export class StandInUpload {
  /** In the order in which they were begun. */
  static all: StandInUpload[] = [];

  /** From now on whatever a page sends so is held here. */
  static install(): void {
    StandInUpload.all = [];
    globalThis.XMLHttpRequest = StandInUpload as unknown as typeof XMLHttpRequest;
  }

  address = '';
  file: File | null = null;
  stopped = false;
  status = 0;
  responseText = '';
  upload: { onprogress: ((event: { loaded: number; total: number }) => void) | null } = { onprogress: null };
  onload: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onabort: (() => void) | null = null;

  open(_: string, address: string): void {
    this.address = address;
  }
  setRequestHeader(): void {
    // Nothing of it is looked at.
  }
  getResponseHeader(): string {
    return 'application/json';
  }
  send(file: File): void {
    this.file = file;
    StandInUpload.all.push(this);
  }
  abort(): void {
    this.stopped = true;
    this.onabort?.();
  }

  answer(attachment: object): void {
    this.status = 200;
    this.responseText = JSON.stringify(attachment);
    this.onload?.();
  }
  refuse(refusal: Refusal): void {
    this.status = STATUS_OF_REFUSAL[refusal.code];
    this.responseText = JSON.stringify(refusal);
    this.onload?.();
  }
}
