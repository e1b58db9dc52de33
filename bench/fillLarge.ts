import { EMPTY_REQUIREMENT } from '@caderno/core/basis';
import type { NewArtefact } from '@caderno/contract';
import type { Design } from '@caderno/core/coverage';
import type { BenchServer } from '@caderno/server/bench';
import { LARGE, largeDesign } from './largeProject.ts';

/** Stores the large project as `large` through the services; answers the session of whoever may change it. */
export async function fillLarge(server: BenchServer): Promise<{ readonly token: string }> {
  console.log(`Storing ${LARGE.requirements + LARGE.conditions + LARGE.cases} artefacts through the services …`);
  return server.fill('large', artefactsOf(largeDesign(4711)));
}

/** The artefacts of a design, in an order in which links lead backwards. */
export function artefactsOf(design: Design): NewArtefact[] {
  return [
    ...design.requirements.map((r) => ({ kind: 'requirement' as const, content: { ...EMPTY_REQUIREMENT, title: r.title, text: 'A text.', module: r.module, risk: r.risk } })),
    ...design.conditions.map((c) => ({ kind: 'condition' as const, content: c.content })),
    ...design.cases.map((c) => ({ kind: 'case' as const, content: c.content })),
  ];
}
