import { artefactId } from '@caderno/core/artefacts';
import { instancesOf, outlineOf, scenariosWrittenFor } from '@caderno/core/scenarios';
import { conditionIdSchema, requirementIdSchema, scenariosForSchema } from '@caderno/contract';
import { z } from 'zod';
import type { StoredKind } from './kind.ts';

const scenario = z.object({ number: z.int(), name: z.string(), tags: z.array(z.string()), steps: z.int(), instances: z.int() });
const facts = z.object({ path: z.string(), scenarios: z.array(scenario), problems: z.int(), requirements: z.array(requirementIdSchema), scenariosFor: scenariosForSchema.default([]), covers: z.array(conditionIdSchema) });

/** Letters of a name that a list shows. */
const MOST_SHOWN = 300;

export const storedFeature: StoredKind<'feature', z.infer<typeof facts>> = {
  facts,
  noFacts: { path: '', scenarios: [], problems: 0, requirements: [], scenariosFor: [], covers: [] },
  columns(content) {
    const { title, path, module, owner, requirements } = content;
    const { tags, scenarios, problems } = outlineOf(content);
    const listed = scenarios.flatMap((s) => (s.kind === 'scenario' ? [{ number: s.number, name: s.name.slice(0, MOST_SHOWN).toWellFormed(), tags: [...s.tags], steps: s.steps.length, instances: instancesOf(s) }] : []));
    const all = new Set([...tags, ...scenarios.flatMap((s) => [...s.tags, ...s.examples.flatMap((e) => e.tags)])]);
    return { title, module, risk: null, priority: null, owner, tags: [...all], facts: { path, scenarios: listed, problems: problems.length, requirements: requirements.map((r) => r.id), scenariosFor: scenariosWrittenFor(content).map((r) => ({ ...r, scenarios: [...r.scenarios] })), covers: [...new Set(content.parts.flatMap((p) => p.covers.map((c) => c.id)))] } };
  },
  summary: (head, { number, owner, tags }, own) => ({ kind: 'feature', id: artefactId('feature', number), ...head, owner, tags, ...own }),
};
