import { parseArtefactId, parseScenarioId, type CoveringId, type ArtefactId, type ArtefactKind, type CaseId, type ConditionId, type DataSetId, type FeatureId, type IdOfKind, type QuestionId, type RequirementId, type SharedId, type SuiteId } from '@caderno/core/artefacts';
import { itemKey, fieldId, type FieldId, type ItemKey } from '@caderno/core/conditions';
import { attachmentId, type AttachmentId } from '@caderno/core/attachments';
import { parameterId, rowId, stepId, type ParameterId, type RowId, type StepId } from '@caderno/core/cases';
import { ownFieldId, type OwnFieldId } from '@caderno/core/fields';
import { entryId, type EntryId } from '@caderno/core/suites';
import { lineId, ownKindId, partId, phraseKey, type LineId, type OwnKindId, type PartId, type PhraseKey } from '@caderno/core/scenarios';
import { z } from 'zod';
import { LIMITS } from './limits.ts';
import { textUpTo } from './text.ts';

/** Ids inside a content are made by whoever writes it: letters, digits and a few marks. */
const INNER_ID = /^[\w:.-]{1,64}$/;

/** Ids name cells and entries of records, where names that every object has would be found though nothing is there. */
export function isInnerId(text: string): boolean {
  return INNER_ID.test(text) && !(text in Object.prototype);
}

const innerId = z.string().regex(INNER_ID).refine(isInnerId);

/** Keys of coverage items hold boundary values, which may be long and are free text, or the ids of many factors. */
export const itemKeySchema: z.ZodType<ItemKey> = textUpTo(4_000).refine((key) => key !== '', 'must not be empty').transform(itemKey);
/** Of a field of a condition’s model. */
export const fieldIdSchema: z.ZodType<FieldId> = innerId.transform(fieldId);
/** Of a step within its case. */
export const stepIdSchema: z.ZodType<StepId> = innerId.transform(stepId);
/** Of a parameter within its case or shared steps. */
export const parameterIdSchema: z.ZodType<ParameterId> = innerId.transform(parameterId);
/** Of a row within its case or data set. */
export const rowIdSchema: z.ZodType<RowId> = innerId.transform(rowId);
/** Of a picture: the SHA-256 of its bytes in hexadecimal. */
export const attachmentIdSchema: z.ZodType<AttachmentId> = z.string().regex(/^[0-9a-f]{64}$/).transform(attachmentId);
/** Of a field that a project has made for itself. */
export const ownFieldIdSchema: z.ZodType<OwnFieldId> = innerId.transform(ownFieldId);
/** Of a kind of values: short, as names of values in steps are made of it. */
export const ownKindIdSchema: z.ZodType<OwnKindId> = z.string().regex(/^[a-z0-9]{1,12}$/).transform(ownKindId);
/** Of anything inside a content. */
export const innerIdSchema = innerId;

/** Of a part of a feature. */
export const partIdSchema: z.ZodType<PartId> = innerId.transform(partId);
/** A phrase of steps: texts of steps are as long as a line of a file may be. */
export const phraseKeySchema: z.ZodType<PhraseKey> = textUpTo(20_000).refine((key) => key !== '', 'must not be empty').transform(phraseKey);
/** Of a part or a member of a suite. */
export const entryIdSchema: z.ZodType<EntryId> = innerId.transform(entryId);
/** Of a line within a part of a feature. */
export const lineIdSchema: z.ZodType<LineId> = innerId.transform(lineId);

/** Of an artefact; the database counts no further. */
export const versionNumberSchema = z.int().min(1).max(LIMITS.number);

function idOf<K extends ArtefactKind>(kind: K, pattern: RegExp): z.ZodType<IdOfKind[K]> {
  const isId = (text: string): text is string & IdOfKind[K] => parseArtefactId(text)?.kind === kind;
  return z.string().regex(pattern).refine(isId).transform((text) => text as IdOfKind[K]);
}

/** `R-12`. */
export const requirementIdSchema: z.ZodType<RequirementId> = idOf('requirement', /^R-[1-9]\d{0,8}$/);
/** `K-12`. */
export const conditionIdSchema: z.ZodType<ConditionId> = idOf('condition', /^K-[1-9]\d{0,8}$/);
/** `C-12`. */
export const caseIdSchema: z.ZodType<CaseId> = idOf('case', /^C-[1-9]\d{0,8}$/);
/** `Q-12`. */
export const questionIdSchema: z.ZodType<QuestionId> = idOf('question', /^Q-[1-9]\d{0,8}$/);
/** `S-12`. */
export const sharedIdSchema: z.ZodType<SharedId> = idOf('shared', /^S-[1-9]\d{0,8}$/);
/** `D-12`. */
export const dataSetIdSchema: z.ZodType<DataSetId> = idOf('dataSet', /^D-[1-9]\d{0,8}$/);
/** `F-12`. */
export const featureIdSchema: z.ZodType<FeatureId> = idOf('feature', /^F-[1-9]\d{0,8}$/);
/** `U-12`. */
export const suiteIdSchema: z.ZodType<SuiteId> = idOf('suite', /^U-[1-9]\d{0,8}$/);
/** Of a case, or a scenario (`F-12/3`): what covers conditions. */
export const coveringIdSchema: z.ZodType<CoveringId> = z.string().refine((text): text is CoveringId => parseArtefactId(text)?.kind === 'case' || parseScenarioId(text) !== null).transform((text) => text as CoveringId);
/** The id of an artefact of any kind. */
export const artefactIdSchema: z.ZodType<ArtefactId> = z.union([requirementIdSchema, conditionIdSchema, caseIdSchema, questionIdSchema, sharedIdSchema, dataSetIdSchema, featureIdSchema, suiteIdSchema]);
