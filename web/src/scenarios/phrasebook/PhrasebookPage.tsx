import { PHRASE_KINDS, type AlikePhrases, type PhraseDetails, type PhraseKey, type PhraseKind } from '@caderno/core/scenarios';
import { Check, ChevronRight } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { Loading } from '../../artefacts/index.ts';
import { address, useFrame } from '../../frame/index.ts';
import { Choose, Empty, Section, TextButton, countOf, locale, TextBox } from '../../look/index.ts';
import { useAgree, usePhrases, type ShownPhrase } from '../usePhrases.ts';
import { useWording } from '../../phrases/index.ts';
import { DetailDialog } from './DetailDialog.tsx';
import { PhraseText } from './PhraseText.tsx';
import { RewordDialog } from './RewordDialog.tsx';
import { Uses } from './Uses.tsx';

const KIND_WORD: Record<PhraseKind, string> = { given: 'Given', when: 'When', then: 'Then', other: '*' };

interface Rewording {
  readonly from: readonly ShownPhrase[];
  readonly to: string;
}

/** All phrases of the project's scenarios: how often and where each is used, which are agreed, and which may say the same. */
export function PhrasebookPage() {
  const { project } = useFrame();
  const { data, error } = usePhrases();
  const [rewording, setRewording] = useState<Rewording | null>(null);
  if (data === undefined) return <Loading error={error} />;
  const { phrases, alike, byKey } = data;
  const steps = phrases.reduce((sum, p) => sum + p.uses, 0);
  if (phrases.length === 0) return <Empty title="No phrases yet">Every step of a scenario is a phrase with values in it. Write a feature or import some, and they stand here.</Empty>;
  return (
    <div className="h-full overflow-y-auto px-8 py-6">
      <div className="mx-auto max-w-5xl pb-10">
        <header className="flex flex-wrap items-baseline gap-3">
          <h1 className="font-serif text-2xl font-semibold">Phrasebook</h1>
          <span className="text-sm text-ink2">
            {countOf(phrases.filter((p) => p.uses > 0).length, 'phrase')} in {countOf(steps, 'step')}
          </span>
          <Link to={`${address.settings(project)}#values`} className="ml-auto text-sm underline decoration-rule2 underline-offset-2">
            Own kinds of values
          </Link>
          <Link to={address.scenarios(project)} className="text-sm underline decoration-rule2 underline-offset-2">
            Back to the scenarios
          </Link>
        </header>
        {alike.length > 0 && <Alike groups={alike} byKey={byKey} onReword={(from, to) => setRewording({ from, to })} />}
        <AllPhrases phrases={phrases} onReword={(phrase) => setRewording({ from: [phrase], to: phrase.shown })} />
      </div>
      {rewording !== null && <RewordDialog {...rewording} onClose={() => setRewording(null)} />}
    </div>
  );
}

const WHY_WORDS: Record<AlikePhrases['why'], string> = { sameWords: 'the same words but for small ones', oneWord: 'one word other' };
const FEW_GROUPS = 6;

interface AlikeProps {
  readonly groups: readonly AlikePhrases[];
  readonly byKey: ReadonlyMap<PhraseKey, ShownPhrase>;
  readonly onReword: (from: readonly ShownPhrase[], to: string) => void;
}

/** Phrases that may say the same, side by side; a click on one makes it the wording of all. */
function Alike({ groups, byKey, onReword }: AlikeProps) {
  const { canEdit } = useFrame();
  const [all, setAll] = useState(false);
  return (
    <Section title="Nearly alike" aside={`${countOf(groups.length, 'group')}; the words in which they differ are marked`}>
      <ul className="grid grid-cols-2 gap-x-8 max-tablet:grid-cols-1">
        {groups.slice(0, all ? groups.length : FEW_GROUPS).map(({ why, keys }) => {
          const known = keys.flatMap((key) => byKey.get(key) ?? []);
          const [first] = known;
          if (first === undefined) return null;
          return (
            <li key={`${why} ${first.key}`} className="border-b border-rule py-2">
              <p className="text-xs text-ink2">{WHY_WORDS[why]}</p>
              <ul>
                {known.map((phrase) => (
                  <li key={phrase.key} className="flex items-baseline gap-3 py-0.5">
                    <span className="min-w-0 flex-1">
                      <PhraseText phrase={phrase} {...(phrase === first ? { against: known[1]?.key ?? first.key } : { against: first.key })} />
                    </span>
                    <span className="shrink-0 text-xs text-ink2">
                      {phrase.agreed && 'agreed · '}
                      {countOf(phrase.uses, 'use')}
                    </span>
                    {canEdit && (
                      <TextButton className="shrink-0 text-xs" aria-label={`Word all as ${phrase.shown}`} onClick={() => onReword(known, phrase.shown)}>
                        use for all
                      </TextButton>
                    )}
                  </li>
                ))}
              </ul>
            </li>
          );
        })}
      </ul>
      {!all && groups.length > FEW_GROUPS && (
        <TextButton className="mt-1 text-sm" onClick={() => setAll(true)}>
          all {groups.length}
        </TextButton>
      )}
    </Section>
  );
}

const ANY = '';
const KINDS = [{ value: ANY, name: 'any' }, ...PHRASE_KINDS.map((kind) => ({ value: kind, name: KIND_WORD[kind] }))] as const;
const MOST_SHOWN = 300;

/** What may be asked of phrases besides words. */
const STANDINGS = [
  { value: ANY, name: 'all' },
  { value: 'agreed', name: 'agreed' },
  { value: 'notAgreed', name: 'not agreed' },
  { value: 'unused', name: 'agreed, used nowhere' },
  { value: 'detailed', name: 'said in full' },
  { value: 'once', name: 'used once' },
  { value: 'ambiguous', name: 'ambiguous' },
] as const;
type Standing = (typeof STANDINGS)[number]['value'];

function isSo(phrase: ShownPhrase, standing: Standing, details: PhraseDetails): boolean {
  switch (standing) {
    case ANY:
      return true;
    case 'agreed':
      return phrase.agreed;
    case 'notAgreed':
      return !phrase.agreed;
    case 'unused':
      return phrase.uses === 0;
    case 'detailed':
      return details.has(phrase.key);
    case 'once':
      return phrase.uses === 1;
    case 'ambiguous':
      return phrase.ambiguous;
  }
}

function AllPhrases({ phrases, onReword }: { readonly phrases: readonly ShownPhrase[]; readonly onReword: (phrase: ShownPhrase) => void }) {
  const { project } = useFrame();
  const { details } = useWording(project);
  const [words, setWords] = useState('');
  const [kind, setKind] = useState<PhraseKind | typeof ANY>(ANY);
  const [standing, setStanding] = useState<Standing>(ANY);
  const sought = useDeferredValue(words).toLowerCase().split(/\s+/).filter(Boolean);
  const fitting = phrases.filter((p) => (kind === ANY || p.kinds[kind] > 0) && isSo(p, standing, details) && sought.every((w) => p.shown.toLowerCase().includes(w)));
  return (
    <Section
      title="All phrases"
      aside={countOf(fitting.length, 'phrase')}
      actions={
        <span className="flex items-center gap-2">
          <TextBox aria-label="Find phrases" value={words} onChange={setWords} placeholder="Words of a phrase" className="h-chip w-52 text-xs" />
          <Choose label="Which" showLabel value={standing} options={STANDINGS} onChange={setStanding} />
          <Choose label="Said as" showLabel value={kind} options={KINDS} onChange={setKind} />
        </span>
      }
    >
      <ul>
        {fitting.slice(0, MOST_SHOWN).map((phrase) => (
          <PhraseLine key={phrase.key} phrase={phrase} onReword={() => onReword(phrase)} />
        ))}
      </ul>
      {fitting.length > MOST_SHOWN && <p className="mt-2 text-sm text-ink2">and {(fitting.length - MOST_SHOWN).toLocaleString(locale())} more: write some of their words</p>}
      {fitting.length === 0 && <p className="mt-2 text-ink2">No phrase has these words.</p>}
    </Section>
  );
}

function PhraseLine({ phrase, onReword }: { readonly phrase: ShownPhrase; readonly onReword: () => void }) {
  const { canEdit } = useFrame();
  const agree = useAgree();
  const [open, setOpen] = useState(false);
  const [detailing, setDetailing] = useState(false);
  const said = PHRASE_KINDS.filter((kind) => phrase.kinds[kind] > 0).map((kind) => KIND_WORD[kind]);
  return (
    <li className="border-b border-rule">
      <div className="group flex items-baseline gap-3 py-1.5">
        <button type="button" data-on-paper aria-expanded={open} aria-label={`Uses of ${phrase.shown}`} className="flex min-w-0 flex-1 items-baseline gap-2 text-left" onClick={() => setOpen(!open)}>
          <ChevronRight size={13} aria-hidden="true" className={`shrink-0 self-center text-ink3 ${open ? 'rotate-90' : ''}`} />
          <span className="w-20 shrink-0 text-xs font-semibold text-blue">{said.join(' ')}</span>
          <span className="min-w-0">
            <PhraseText phrase={phrase} />
          </span>
        </button>
        {canEdit && (
          <TextButton className="shrink-0 text-xs opacity-0 focus-visible:opacity-100 group-hover:opacity-100" onClick={onReword}>
            reword
          </TextButton>
        )}
        <InFull phrase={phrase} onDetail={() => setDetailing(true)} />
        {phrase.ambiguous && (
          <span className="shrink-0 text-xs text-ochre-ink" title="Another phrase differs only in quotation marks: code that takes any value for one takes steps of the other too">
            ambiguous
          </span>
        )}
        <span className="w-28 shrink-0 text-right text-xs text-ink2">
          {countOf(phrase.uses, 'use')}
          {phrase.features > 1 && ` in ${phrase.features}`}
        </span>
        <button type="button" disabled={!canEdit} aria-pressed={phrase.agreed} title={phrase.agreed ? 'Agreed: offered first while writing' : 'Say that steps are to be worded so'} onClick={() => agree(phrase.key, !phrase.agreed)} className={`inline-flex w-20 shrink-0 items-baseline justify-end gap-1 text-xs ${phrase.agreed ? 'font-semibold text-pine' : 'text-ink2 underline decoration-rule2 underline-offset-2 hover:decoration-current'}`}>
          {phrase.agreed && <Check size={12} aria-hidden="true" className="self-center" />}
          {phrase.agreed ? 'agreed' : canEdit ? 'agree' : ''}
        </button>
      </div>
      {open && <Uses phrase={phrase.key} />}
      {detailing && <DetailDialog phrase={phrase} onClose={() => setDetailing(false)} />}
    </li>
  );
}

/** The shared steps that say a phrase in full, or the way to give it some. */
function InFull({ phrase, onDetail }: { readonly phrase: ShownPhrase; readonly onDetail: () => void }) {
  const { project, canEdit } = useFrame();
  const detail = useWording(project).details.get(phrase.key);
  if (detail !== undefined) {
    return canEdit ? (
      <TextButton className="shrink-0 text-xs" aria-label={`What ${phrase.shown} says in full: ${detail.shared}`} onClick={onDetail}>
        in full: {detail.shared}
      </TextButton>
    ) : (
      <Link className="shrink-0 text-xs underline decoration-rule2 underline-offset-2" to={address.shared(project, detail.shared)}>
        in full: {detail.shared}
      </Link>
    );
  }
  if (!canEdit) return null;
  return (
    <TextButton className="shrink-0 text-xs opacity-0 focus-visible:opacity-100 group-hover:opacity-100" aria-label={`Say in full what ${phrase.shown} means`} onClick={onDetail}>
      say in full
    </TextButton>
  );
}
