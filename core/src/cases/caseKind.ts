import { ledTo, plainLink, traceLink, type Kind, type Link, type PinOf } from '../artefacts/index.ts';
import { textsOfCase } from './parameters.ts';
import { stepsWithPins } from './pins.ts';
import { EMPTY_CASE, caseMeaning, type CaseContent, type DataUse } from './testCase.ts';
import { pinLedTo, pinnedVersion, pinnedVersions, useLinks, usesLedTo } from './uses.ts';

export const caseKind: Kind<CaseContent> = {
  empty: EMPTY_CASE,
  meaning: caseMeaning,
  links: ({ covers, dependsOn, steps, data }): Link[] => [
    ...covers.map((cover) => traceLink('covers', cover)),
    ...dependsOn.map((dependency) => plainLink('dependsOn', dependency.id)),
    ...useLinks(steps),
    ...(data === null ? [] : [plainLink('uses', data.set, data.pinned)]),
  ],
  versionsNamed: ({ steps, data, origin }) => [...pinnedVersions(steps), ...(data === null ? [] : pinnedVersion(data.set, data.pinned)), ...(origin === null ? [] : [origin])],
  words: (content) => [...textsOfCase(content), ...content.rows.flatMap((r) => [r.name, r.description])],
  withTraceLinks: (content, replace) => ({ ...content, covers: content.covers.map(replace) }),
  withTargets(content, targets) {
    const set = content.data === null ? null : targets.id(content.data.set);
    const data = content.data === null || set === null ? null : { ...content.data, set, pinned: pinLedTo(content.data.set, content.data.pinned, targets) };
    const steps = usesLedTo(content.steps, targets);
    // Where it was cloned from is of the project it was cloned in.
    return { ...content, data, steps, covers: content.covers.flatMap((c) => ledTo(c, targets)), dependsOn: content.dependsOn.flatMap((d) => ledTo(d, targets)), origin: null };
  },
  settled: null,
  withPins(content, pinOf) {
    const [steps, data] = [stepsWithPins(content.steps, pinOf), withPin(content.data, pinOf)];
    return steps === content.steps && data === content.data ? content : { ...content, steps, data };
  },
};

function withPin(data: DataUse | null, pinOf: PinOf): DataUse | null {
  const pinned = data === null ? null : pinOf(data.set, data.pinned);
  return data === null || pinned === data.pinned ? data : { ...data, pinned };
}
