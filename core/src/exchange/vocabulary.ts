import { FIRST_PRIORITIES, priorityNamed, type Priority } from '../artefacts/index.ts';
import { REQUIREMENT_TYPES, RISKS, type RequirementType, type Risk } from '../basis/index.ts';

/** How values of closed sets are written in files, the first spelling being ours, and what else is understood: levels also in the languages that columns are called in. */
const TYPE_WORDS: Record<RequirementType, readonly string[]> = {
  rule: ['rule', 'requirement', 'functional', 'functional requirement', 'business rule', 'feature', 'system requirement'],
  userStory: ['user story', 'story', 'userstory'],
  quality: ['quality', 'non-functional', 'nonfunctional', 'non functional', 'quality requirement', 'nfr', 'performance', 'security', 'usability'],
  heading: ['heading', 'section', 'chapter', 'headline'],
  apiOperation: ['API operation', 'api', 'interface', 'operation', 'endpoint'],
};
const LEVEL_WORDS: Record<Risk, readonly string[]> = {
  high: ['high', 'h', 'critical', 'very high', 'must', 'must have', 'mandatory', '1', 'p1', 'a', 'hoch', 'sehr hoch', 'kritisch', 'muss', 'haute', 'haut', 'élevé', 'élevée', 'critique', 'alta', 'alto', 'crítica', 'crítico', 'hög', 'kritisk'],
  medium: ['medium', 'm', 'normal', 'moderate', 'should', 'should have', 'desired', '2', 'p2', 'b', 'mittel', 'soll', 'moyenne', 'moyen', 'media', 'medio', 'média', 'médio', 'medel'],
  low: ['low', 'l', 'minor', 'very low', 'could', 'could have', 'optional', 'nice to have', '3', 'p3', 'c', 'niedrig', 'gering', 'kann', 'faible', 'basse', 'bas', 'baja', 'bajo', 'baixa', 'baixo', 'låg'],
};

export const writtenType = (type: RequirementType): string => TYPE_WORDS[type][0] ?? type;

export function readType(text: string): RequirementType | null {
  return REQUIREMENT_TYPES.find((type) => TYPE_WORDS[type].some((word) => word.toLowerCase() === text.trim().toLowerCase())) ?? null;
}

export function readRisk(text: string): Risk | null {
  return RISKS.find((risk) => LEVEL_WORDS[risk].includes(text.trim().toLowerCase())) ?? null;
}

/** One of a project's priorities by its name or, where the project has what we begin with, by another spelling of it; null: it is none. */
export function readPriority(text: string, priorities: readonly Priority[]): Priority | null {
  const level = readRisk(text);
  return priorityNamed(text, priorities) ?? (level === null ? null : priorityNamed(level, priorities));
}

/** Whether two spellings are one priority of those that a project begins with. */
export function isSamePriority(a: string, b: string): boolean {
  const read = readPriority(a, FIRST_PRIORITIES);
  return read !== null && read === readPriority(b, FIRST_PRIORITIES);
}
