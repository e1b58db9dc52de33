import { ARTEFACT_KINDS } from '@caderno/core/artefacts';
import { z } from 'zod';

/** Rows that many queries answer. */
export const artefactKeyRow = z.object({ kind: z.enum(ARTEFACT_KINDS), number: z.number() });
export const numberRow = z.object({ number: z.number() });
export const idRow = z.object({ id: z.string() });
export const countRow = z.object({ count: z.number() });
