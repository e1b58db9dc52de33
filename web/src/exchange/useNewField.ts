import { ownFieldForColumn, ownFieldId, type OwnFieldId } from '@caderno/core/fields';
import { useState } from 'react';
import { toast } from 'sonner';
import { useSaveSettings, useSettings } from '../api/index.ts';
import { KIND_NAME } from '../look/index.ts';

/** What the rows of a file become. */
export type ImportedKind = 'requirement' | 'case';

/** Makes a field of the project's own for a column of a file; `make` answers null when it was refused, and says why. `isReady`: the settings that it is made in are known. */
export function useNewField(project: string, kind: ImportedKind): { readonly isReady: boolean; readonly isMaking: boolean; readonly make: (column: string) => Promise<OwnFieldId | null> } {
  const stored = useSettings(project).data;
  const save = useSaveSettings(project);
  const [isMaking, setMaking] = useState(false);
  const make = async (column: string): Promise<OwnFieldId | null> => {
    if (stored === undefined) return null;
    const { version, settings } = stored;
    const field = ownFieldForColumn(ownFieldId(crypto.randomUUID().slice(0, 8)), column, kind, settings.fields);
    setMaking(true);
    const isMade = await save(version, { ...settings, fields: [...settings.fields, field] });
    setMaking(false);
    if (isMade) toast.success(`All ${KIND_NAME[kind][1]} have a field “${field.name}” now. It holds any text; the settings give it choices or another type.`);
    return isMade ? field.id : null;
  };
  return { isReady: stored !== undefined, isMaking, make };
}
