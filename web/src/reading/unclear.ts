import type { OpenedCase } from '@caderno/core/shared';

/** A place an executor would stop at. */
export interface Unclear {
  readonly step: number;
  readonly kind: 'unbound' | 'undeclared' | 'gone' | 'withdrawn';
  readonly name: string;
}

/** The places of the instance that is bound, in reading order, each name once a step. */
export function unclearPlaces(opened: Pick<OpenedCase, 'scope' | 'steps'>): Unclear[] {
  return opened.steps.flatMap((line, step): Unclear[] => {
    if (line.kind === 'gone') return [{ step, kind: 'gone', name: line.step.kind === 'shared' ? line.step.shared : line.step.case }];
    const parts = [line.step.action, line.step.expected].flatMap((text) => line.scope.open(text));
    const open = new Map(parts.flatMap((p) => (p.kind === 'parameter' && (p.value.kind === 'unbound' || p.value.kind === 'undeclared') ? [[p.name, p.value.kind] as const] : [])));
    const withdrawn = line.through.at(-1)?.used;
    return [...[...open].map(([name, kind]): Unclear => ({ step, kind, name })), ...(withdrawn?.withdrawn === true ? [{ step, kind: 'withdrawn' as const, name: withdrawn.id }] : [])];
  });
}
