import type { BodyOf, Operation, ParamsOf, QueryOf } from '@caderno/contract';

/** Who calls, and how they are known. */
export interface Caller {
  readonly token: string | null;
  readonly ifMatch: number | null;
  readonly commandId: string | null;
  readonly remote: string;
  readonly agent: string;
}

/** What is sent, parsed by nobody yet: it can be handed to a thread. */
export interface Sent {
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
  readonly body: string | null;
}

/** A request of an operation, with who makes it. */
export interface OperationRequest<N extends Operation = Operation> extends Caller, Sent {
  readonly name: N;
}

/** What is sent, once it is parsed. */
export interface Input<N extends Operation> {
  readonly params: ParamsOf<N>;
  readonly query: QueryOf<N>;
  readonly body: BodyOf<N>;
}
