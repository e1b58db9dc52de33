import type { Pin } from '@caderno/core/artefacts';
import { z } from 'zod';

/** As the link of a use says it in the database: versions count from 1, so 0 is free for what follows the agreed one. */
const AGREED = 0;

export function storedPin(pin: Pin): number | null {
  return pin === 'agreed' ? AGREED : pin;
}

/** What a use means, of a link of the database. */
export const storedPinSchema = z
  .number()
  .nullable()
  .transform((stored): Pin => (stored === AGREED ? 'agreed' : stored));
