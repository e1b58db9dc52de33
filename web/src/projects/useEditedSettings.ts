import { SECRET_MASK } from '@caderno/core/shared';
import { projectSettingsSchema, type ProjectSettings, type ResponseOf } from '@caderno/contract';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { RefusedCall, call, untilTaken, useRefresh } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { RETRY_MS, beginEditing, nextSequence, useEditedText, type Editing, type EditingState, type Head, type LocalDraft, type TextStore } from '../versions/index.ts';

type Stored = ResponseOf<'readSettings'>;

/** Edits the settings as artefacts are edited: what others save meanwhile is taken in, and what is typed outlives the page. */
export function useEditedSettings(stored: Stored, keptHere: LocalDraft | null): Editing<ProjectSettings> {
  const { project, person, canEdit } = useFrame();
  const client = useQueryClient();
  const refresh = useRefresh(project);
  const store = useMemo<TextStore<ProjectSettings>>(() => {
    const queryKey = [project, 'settings'];
    const taken = (answer: Stored): Head<ProjectSettings> => {
      client.setQueryData(queryKey, answer);
      return headOf(answer);
    };
    return {
      place: { project, person: person.id, of: 'settings' },
      canEdit,
      toKeepHere: withoutTypedSecrets,
      head: headOf(stored),
      hadDraft: false,
      keepDraft: null,
      dropDraft: () => Promise.resolve(headOf(client.getQueryData<Stored>(queryKey) ?? stored)),
      save: async ({ base, content }, onWaiting) => {
        const commandId = crypto.randomUUID();
        const head = taken(await untilTaken(() => call('saveSettings', { params: { project }, body: content }, { ifMatch: base, commandId }), RETRY_MS, onWaiting));
        void refresh();
        return head;
      },
      onRefused: (error) => {
        if (error instanceof RefusedCall && error.refusal.code === 'settings_moved') void client.invalidateQueries({ queryKey });
      },
    };
  }, [canEdit, client, person.id, project, refresh, stored]);
  return useEditedText(store, () => begin(stored, keptHere));
}

function begin(stored: Stored, keptHere: LocalDraft | null): EditingState<ProjectSettings> {
  const content = projectSettingsSchema.safeParse(keptHere?.content);
  const baseContent = projectSettingsSchema.safeParse(keptHere?.baseContent);
  const kept = keptHere === null || !content.success || !baseContent.success ? null : { base: keptHere.base, content: content.data, baseContent: baseContent.data };
  return beginEditing(headOf(stored), kept, { kind: kept === null ? 'version' : 'typing' }, nextSequence());
}

/** A browser keeps no secret in the clear: one that was typed is typed again when the page was left before it was saved. */
export function withoutTypedSecrets(settings: ProjectSettings, base: ProjectSettings): ProjectSettings {
  return {
    ...settings,
    constants: settings.constants.map((constant) => {
      if (!constant.secret) return constant;
      const before = base.constants.find((c) => c.id === constant.id && c.secret);
      const kept = (value: string, earlier: string | undefined): string => (value === SECRET_MASK ? value : (earlier ?? ''));
      return { ...constant, value: kept(constant.value, before?.value), others: Object.fromEntries(Object.entries(constant.others).map(([id, value]) => [id, kept(value, before?.others[id])])) };
    }),
  };
}

/** Who saved the settings last is not part of them; the journal says it. */
function headOf({ version, settings }: Stored): Head<ProjectSettings> {
  return { version, content: settings, author: 'Somebody' };
}
