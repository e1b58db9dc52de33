import { ambiguousPhrases, canBeWordedAs, expressionOf, keyUnder, phraseKey, piecesOf, type Phrase, type PhraseKey } from '@caderno/core/scenarios';
import type { AlikePhrases } from '@caderno/core/scenarios';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, useSaveSettings, useSettings } from '../api/index.ts';
import { useFrame } from '../frame/index.ts';
import { useWording } from '../phrases/index.ts';

/** A phrase as the phrasebook shows it. */
export interface ShownPhrase extends Phrase {
  /** As a cucumber expression. */
  readonly shown: string;
  readonly agreed: boolean;
  /** Steps of it may be taken for another phrase, which has other quotation marks. */
  readonly ambiguous: boolean;
}

/** The phrases of the project. */
export interface PhrasesKnown {
  /** Agreed ones first, then the most used. */
  readonly phrases: readonly ShownPhrase[];
  readonly alike: readonly AlikePhrases[];
  readonly byKey: ReadonlyMap<PhraseKey, ShownPhrase>;
}

export function usePhrases(): { readonly data: PhrasesKnown | undefined; readonly error: Error | null } {
  const { project } = useFrame();
  const { data, error } = useQuery({ queryKey: [project, 'list', 'phrases'], queryFn: () => call('readPhrases', { params: { project } }), placeholderData: keepPreviousData });
  const { own } = useWording(project);
  const settings = useSettings(project).data?.settings;
  const known = useMemo((): PhrasesKnown | undefined => {
    if (data === undefined) return undefined;
    const agreed = settings?.agreedPhrases.map((key) => keyUnder(phraseKey(key), own).key) ?? [];
    const isAgreed = new Set(agreed);
    const used = new Set<string>(data.phrases.map((p) => p.key));
    const unused = [...isAgreed].filter((key) => !used.has(key)).map(unusedPhrase);
    const all = [...data.phrases, ...unused];
    const isAmbiguous = new Set(ambiguousPhrases(all).flat());
    const phrases = all.map((p): ShownPhrase => ({ ...p, shown: expressionOf(p), agreed: isAgreed.has(p.key), ambiguous: isAmbiguous.has(p.key) })).toSorted((a, b) => Number(b.agreed) - Number(a.agreed));
    const byKey = new Map(phrases.map((p) => [p.key, p]));
    return { phrases, byKey, alike: data.alike.filter(({ keys: [first, ...others] }) => first !== undefined && others.some((key) => canBeWordedAs(key, first))) };
  }, [data, own, settings]);
  return { data: known, error };
}

/** A phrase that is agreed and stands in no step: what its values are nobody has said. */
function unusedPhrase(key: PhraseKey): Phrase {
  return { key, holes: piecesOf(key).flatMap((p) => (p.kind === 'hole' ? [p.quoted ? 'string' : 'placeholder'] : [])), uses: 0, features: 0, kinds: { given: 0, when: 0, then: 0, other: 0 } };
}

/** Says that a phrase is agreed, or no longer; it is saved at once, with the settings. */
export function useAgree(): (key: PhraseKey, agreed: boolean) => void {
  const { project } = useFrame();
  const stored = useSettings(project).data;
  const save = useSaveSettings(project);
  const { own } = useWording(project);
  return (key, agreed) => {
    if (stored === undefined) return;
    const { settings, version } = stored;
    const others = settings.agreedPhrases.filter((k) => keyUnder(phraseKey(k), own).key !== key);
    void save(version, { ...settings, agreedPhrases: agreed ? [...others, key] : others });
  };
}
