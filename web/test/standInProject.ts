import { artefactId } from '@caderno/core/artefacts';
import type { CoverageRow } from '@caderno/core/coverage';
import { DEFAULT_SETTINGS, packHeads, packRows, toWire, type ConditionSummary, type FeatureSummary, type QuestionSummary, type RequirementSummary, type Session, type SharedSummary, type SuiteSummary, type Summary } from '@caderno/contract';
import { StandInServer } from './standInServer.ts';

/** Somebody signed in where mail is sent. */
export const SESSION: Session = { person: { id: '00000000-0000-4000-8000-000000000001', name: 'Inês V.', email: 'ines@example.com', administrator: false, demo: false }, projects: [], mayMakeProjects: false, demoPeople: [], needsSetup: false, openToAll: false, sendsMail: true, mailPage: null };

/** A project as a page knows it: what lists show, and what coverage says. Everything else a test answers itself. */
export function standInProject(heads: readonly Summary[], rows: readonly CoverageRow[], answers: ConstructorParameters<typeof StandInServer>[0] = {}): StandInServer {
  return new StandInServer({
    readSession: () => SESSION,
    readHeads: () => ({ revision: 1, heads: packHeads(heads), next: null, suspectLinks: 0 }),
    readChanges: () => ({ kind: 'changes', since: 1, revision: 1, heads: [], gone: [], touched: [], settings: false, suspectLinks: 0 }),
    readCoverageRows: () => ({ since: null, edition: 1, revision: 1, rows: packRows(rows.map(toWire)), gone: [] }),
    readSettings: () => ({ version: 1, settings: DEFAULT_SETTINGS }),
    listMembers: () => [],
    listBasisTexts: () => [],
    listSuspectLinks: () => [],
    listItems: () => ({ items: [], total: 0 }),
    listChanges: () => [],
    listReviews: () => [],
    countInbox: () => ({ unread: 0 }),
    listBaselines: () => [],
    listConditions: () => [],
    readTracker: () => ({ connected: false, checkedAt: null, failure: null, newStories: 0, changedStories: 0 }),
    ...answers,
  });
}

const of = { state: 'draft', version: 1, meaningSince: 1, agreed: null, module: '', author: 'Rui M.', at: '2026-01-01T00:00:00.000Z', broken: false, own: {} } as const;

export function requirementHead(n: number, more: Partial<RequirementSummary> = {}): RequirementSummary {
  return { kind: 'requirement', id: artefactId('requirement', n), title: `Requirement ${n}`, ...of, parent: null, position: n, type: 'rule', sourceId: '', risk: 'medium', priority: 'medium', ...more };
}

export function questionHead(n: number, more: Partial<QuestionSummary> = {}): QuestionSummary {
  return { kind: 'question', id: artefactId('question', n), title: `Question ${n}`, ...of, status: 'open', asked: '', about: [], answeredAt: '', ...more };
}

export function conditionHead(n: number, more: Partial<ConditionSummary> = {}): ConditionSummary {
  return { kind: 'condition', id: artefactId('condition', n), title: `Condition ${n}`, ...of, model: 'plain', polarity: 'both', risk: null, requirements: [], depths: [], ...more };
}

export function sharedHead(n: number, more: Partial<SharedSummary> = {}): SharedSummary {
  return { kind: 'shared', id: artefactId('shared', n), title: `Shared ${n}`, ...of, tags: [], steps: 1, parameters: [], phrases: [], ...more };
}

export function featureHead(n: number, more: Partial<FeatureSummary> = {}): FeatureSummary {
  return { kind: 'feature', id: artefactId('feature', n), title: `Feature ${n}`, ...of, path: `${n}.feature`, owner: '', tags: [], scenarios: [], problems: 0, requirements: [], scenariosFor: [], covers: [], ...more };
}

export function suiteHead(n: number, more: Partial<SuiteSummary> = {}): SuiteSummary {
  return { kind: 'suite', id: artefactId('suite', n), title: `Suite ${n}`, ...of, folder: '', owner: '', tags: [], members: 0, rules: 0, ...more };
}
