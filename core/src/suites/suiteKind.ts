import { parseScenarioId, plainLink, scenarioId, type ArtefactId, type CaseId, type CoveringId, type FeatureId, type Kind, type Link, type Targets } from '../artefacts/index.ts';
import { loosest, pinLedTo, pinnedVersion } from '../cases/index.ts';
import { EMPTY_SUITE, pickedMembers, type SuiteContent, type SuiteEntry, type SuiteMember } from './suite.ts';

export const suiteKind: Kind<SuiteContent> = {
  empty: EMPTY_SUITE,
  meaning: ({ entries, configurations }) => [configurations, ...entries.map((entry) => (entry.kind === 'part' ? [entry.title, entry.depth, entry.rule, entry.runsIn] : [entry.of, entry.pinned, entry.runsIn]))],
  links: memberLinks,
  versionsNamed: (content) => pickedMembers(content).flatMap(({ of, pinned }) => pinnedVersion(ownerOf(of), pinned)),
  words: ({ purpose, folder, entries }) => [purpose, folder, ...entries.flatMap((entry) => (entry.kind === 'part' ? [entry.title] : []))],
  withTraceLinks: (content) => content,
  // Configurations are of their project.
  withTargets: (content, targets) => ({ ...content, configurations: [], entries: content.entries.flatMap((entry): SuiteEntry[] => (entry.kind === 'part' ? [{ ...entry, runsIn: null }] : memberLedTo(entry, targets))) }),
  settled: null,
  withPins(content, pinOf) {
    const entries = content.entries.map((entry) => {
      const pinned = entry.kind === 'member' ? pinOf(ownerOf(entry.of), entry.pinned) : null;
      return entry.kind === 'member' && pinned !== entry.pinned ? { ...entry, pinned } : entry;
    });
    return entries.some((entry, i) => entry !== content.entries[i]) ? { ...content, entries } : content;
  },
};

/** The artefact that a member is, or is a part of: a case itself, a scenario's feature. */
export function ownerOf(member: CoveringId): CaseId | FeatureId {
  const scenario = parseScenarioId(member);
  return scenario === null ? (member as CaseId) : scenario.feature;
}

/** One link to each case and feature, with the loosest of what its members mean. */
function memberLinks(content: SuiteContent): Link[] {
  const pins = new Map<ArtefactId, SuiteMember['pinned'][]>();
  for (const { of, pinned } of pickedMembers(content)) {
    const owner = ownerOf(of);
    const known = pins.get(owner);
    if (known === undefined) pins.set(owner, [pinned]);
    else known.push(pinned);
  }
  return [...pins].map(([to, of]) => plainLink('uses', to, loosest(of)));
}

function memberLedTo(member: SuiteMember, targets: Targets): SuiteMember[] {
  const owner = ownerOf(member.of);
  const there = targets.id(owner);
  if (there === null) return [];
  const scenario = parseScenarioId(member.of);
  return [{ ...member, of: scenario === null ? (there as CaseId) : scenarioId(there as FeatureId, scenario.number), pinned: pinLedTo(owner, member.pinned, targets), runsIn: null }];
}
