import type { ArtefactId } from '@caderno/core/artefacts';
import type { CaseContent } from '@caderno/core/cases';
import { pathOfLine, type FeatureContent } from '@caderno/core/scenarios';
import type { OpenedStep } from '@caderno/core/shared';

/** What is read, as it stands in the project: a case, or the feature of a scenario. */
export interface ReadArtefact {
  readonly id: ArtefactId;
  readonly version: number;
  readonly content: CaseContent | FeatureContent;
}

/** Where a line that is read is written: in what is read itself, or in what it uses. */
export interface ReadPlace {
  readonly id: ArtefactId;
  readonly version: number;
  readonly content: object;
  readonly path: string;
}

/** The place of a line; where no line is read, of all that is read. */
export function placeOfLine(read: ReadArtefact, line: OpenedStep | undefined): ReadPlace {
  if (line === undefined) return { ...read, path: '' };
  const through = line.through.at(-1)?.used;
  const path = `steps/${line.step.id}`;
  if (through !== undefined) return { id: through.id, version: through.version, content: through.content, path };
  // A step of a scenario is named by its line in the file.
  return { ...read, path: 'parts' in read.content ? pathOfLine(read.content, Number(line.step.id)) : path };
}
