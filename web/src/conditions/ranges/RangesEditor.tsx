import { offeredClasses, rangeProblems, type Choice, type Field, type Interval, type OtherClass, type PatternPart, type RangeProblem, type ValueRangesModel } from '@caderno/core/conditions';
import { isOrdered, type ValueType } from '@caderno/core/values';
import { CLASS_WORD, Choose, TextButton, VALUE_WORD, options, Tick } from '../../look/index.ts';
import { Bound, formsWords } from './Bound.tsx';
import { AddButton } from '../AddButton.tsx';
import { Cell, PartRow, Parts, Validity } from './PartTable.tsx';
import { newChoice, newClass, newField, newPattern, nextInterval, withKind } from './newParts.ts';
import { rangeProblemSentence } from './rangeProblemSentence.ts';

interface Props {
  readonly model: ValueRangesModel;
  readonly onChange: (change: (model: ValueRangesModel) => ValueRangesModel) => void;
}

/** The fields of a value ranges model as small tables to type in; problems stand at their place. */
export function RangesEditor({ model, onChange }: Props) {
  const problems = rangeProblems(model);
  const change = (id: string, edit: (field: Field) => Field): void => onChange((m) => ({ ...m, fields: m.fields.map((f) => (f.id === id ? edit(f) : f)) }));
  return (
    <div className="mt-3 space-y-6">
      {model.fields.map((field) => (
        <FieldEditor
          key={field.id}
          field={field}
          problems={problems.filter((p) => p.field === field.id)}
          onChange={(edit) => change(field.id, edit)}
          {...(model.fields.length > 1 ? { onRemove: () => onChange((m) => ({ ...m, fields: m.fields.filter((f) => f.id !== field.id) })) } : {})}
        />
      ))}
      <div className="flex flex-wrap items-center gap-5 text-sm">
        <AddButton onAdd={() => onChange((m) => ({ ...m, fields: [...m.fields, newField(`field ${m.fields.length + 1}`, 'whole')] }))}>Another field</AddButton>
        {model.fields.length > 1 && (
          <Tick checked={model.allowInvalidTogether} onChange={(ticked) => onChange((m) => ({ ...m, allowInvalidTogether: ticked }))}>
            Invalid values of several fields may stand in one row
          </Tick>
        )}
      </div>
      {model.fields.length > 1 && !model.allowInvalidTogether && <p className="text-xs text-ink2">A row that gives invalid values to two fields shows neither of them, as one may hide the other.</p>}
    </div>
  );
}

interface FieldProps {
  readonly field: Field;
  readonly problems: readonly RangeProblem[];
  readonly onChange: (edit: (field: Field) => Field) => void;
  readonly onRemove?: () => void;
}

function FieldEditor({ field, problems, onChange, onRemove }: FieldProps) {
  const setType = (type: ValueType): void => onChange((f) => ({ ...f, type }));
  return (
    <fieldset className="border-t border-rule pt-3">
      <legend className="sr-only">{field.name}</legend>
      <div className="flex flex-wrap items-center gap-2">
        <Cell label="Name of the field" value={field.name} onChange={(name) => onChange((f) => ({ ...f, name }))} className="w-36 font-semibold" />
        <Choose label="Type" value={field.type.kind} options={options(VALUE_WORD)} onChange={(kind) => onChange((f) => withKind(f, kind))} />
        {field.type.kind === 'decimal' && <Cell label="Step" value={field.type.step} onChange={(step) => setType({ kind: 'decimal', step })} className="w-20 font-mono" prefix="step" />}
        {(field.type.kind === 'time' || field.type.kind === 'dateTime') && <StepSeconds type={field.type} onChange={setType} />}
        <Cell label="Unit" value={field.unit} onChange={(unit) => onChange((f) => ({ ...f, unit }))} className="w-20" prefix="unit" />
        <Tick checked={field.required} onChange={(ticked) => onChange((f) => ({ ...f, required: ticked }))} className="text-xs text-ink2">
          required
        </Tick>
        {onRemove !== undefined && (
          <TextButton className="ml-auto text-xs text-ink2" onClick={onRemove}>
            remove the field
          </TextButton>
        )}
      </div>
      {isOrdered(field.type) ? <Intervals field={field} problems={problems} onChange={onChange} /> : field.type.kind === 'textPattern' ? <Patterns field={field} problems={problems} onChange={onChange} /> : <Choices field={field} onChange={onChange} />}
      <Classes field={field} onChange={onChange} />
      {problems.length > 0 && (
        <div role="alert">
          <ul className="mt-2 space-y-0.5 text-sm text-brick">
            {problems.map((p) => (
              <li key={JSON.stringify(p)}>{rangeProblemSentence(p, field)}</li>
            ))}
          </ul>
        </div>
      )}
    </fieldset>
  );
}

function StepSeconds({ type, onChange }: { readonly type: Extract<ValueType, { stepSeconds: number }>; readonly onChange: (type: ValueType) => void }) {
  const choices = [1, 60, 300, 900, 3600].map((seconds) => ({ value: String(seconds), name: seconds < 60 ? 'to the second' : seconds === 60 ? 'to the minute' : `every ${seconds / 60} minutes` }));
  return <Choose label="Step" value={String(type.stepSeconds)} options={choices} onChange={(seconds) => onChange({ ...type, stepSeconds: Number(seconds) })} />;
}

function Intervals({ field, problems, onChange }: Omit<FieldProps, 'onRemove'>) {
  const edit = (id: string, part: Partial<Interval>): void => onChange((f) => ({ ...f, intervals: f.intervals.map((i) => (i.id === id ? { ...i, ...part } : i)) }));
  const unreadable = (id: string, side: 'from' | 'to'): boolean => problems.some((p) => (p.code === 'bound_unreadable' && p.interval === id && p.side === side) || (p.code === 'interval_empty' && p.interval === id));
  return (
    <>
    <Parts head={['Interval', 'from', 'to', '', 'then']} onAdd={() => onChange((f) => ({ ...f, intervals: [...f.intervals, nextInterval(f)] }))} addWord="Add an interval">
      {field.intervals.map((interval) => (
        <PartRow key={interval.id} name={interval.name} onRemove={() => onChange((f) => ({ ...f, intervals: f.intervals.filter((i) => i.id !== interval.id) }))}>
          <Cell label="Name of the interval" value={interval.name} onChange={(name) => edit(interval.id, { name })} className="w-full" />
          <Bound type={field.type} label={`${interval.name} from`} value={interval.from} open="−∞" invalid={unreadable(interval.id, 'from')} onChange={(from) => edit(interval.id, { from })} />
          <Bound type={field.type} label={`${interval.name} to`} value={interval.to} open="+∞" invalid={unreadable(interval.id, 'to')} onChange={(to) => edit(interval.id, { to })} />
          <Validity name={interval.name} valid={interval.valid} onChange={(valid) => edit(interval.id, { valid })} />
          <Cell label={`Outcome of ${interval.name}`} value={interval.outcome} placeholder="what happens" onChange={(outcome) => edit(interval.id, { outcome })} className="w-full" />
        </PartRow>
      ))}
    </Parts>
      <p className="mt-1.5 text-xs text-ink2">{formsWords(field.type)}</p>
    </>
  );
}

function Choices({ field, onChange }: { readonly field: Field; readonly onChange: FieldProps['onChange'] }) {
  const edit = (id: string, part: Partial<Choice>): void => onChange((f) => ({ ...f, choices: f.choices.map((c) => (c.id === id ? { ...c, ...part } : c)) }));
  const fixed = field.type.kind === 'yesNo';
  const add = fixed ? {} : { onAdd: () => onChange((f) => ({ ...f, choices: [...f.choices, newChoice(`value ${f.choices.length + 1}`)] })) };
  return (
    <Parts head={['Value', 'also written', '', '', 'then']} addWord="Add a value" {...add}>
      {field.choices.map((choice) => (
        <PartRow key={choice.id} name={choice.value} wide {...(fixed ? {} : { onRemove: () => onChange((f) => ({ ...f, choices: f.choices.filter((c) => c.id !== choice.id) })) })}>
          <Cell label="Value" value={choice.value} readOnly={fixed} onChange={(value) => edit(choice.id, { value })} className="w-full" />
          <Cell
            label={`Other spellings of ${choice.value}`}
            value={choice.aliases.join(', ')}
            placeholder="other spellings, commas between"
            onChange={(text) => edit(choice.id, { aliases: text === '' ? [] : text.split(/,\s?/) })}
            className="w-full"
          />
          <Validity name={choice.value} valid={choice.valid} onChange={(valid) => edit(choice.id, { valid })} />
          <Cell label={`Outcome of ${choice.value}`} value={choice.outcome} placeholder="what happens" onChange={(outcome) => edit(choice.id, { outcome })} className="w-full" />
        </PartRow>
      ))}
    </Parts>
  );
}

function Patterns({ field, problems, onChange }: Omit<FieldProps, 'onRemove'>) {
  const edit = (id: string, part: Partial<PatternPart>): void => onChange((f) => ({ ...f, patterns: f.patterns.map((p) => (p.id === id ? { ...p, ...part } : p)) }));
  const bad = (code: RangeProblem['code'], name: string): boolean => problems.some((p) => p.code === code && 'name' in p && p.name === name);
  return (
    <Parts head={['Texts', 'pattern', 'example', '', 'then']} onAdd={() => onChange((f) => ({ ...f, patterns: [...f.patterns, newPattern(f)] }))} addWord="Add a pattern">
      {field.patterns.map((part) => (
        <PartRow key={part.id} name={part.name} onRemove={() => onChange((f) => ({ ...f, patterns: f.patterns.filter((p) => p.id !== part.id) }))}>
          <Cell label="Name of the pattern" value={part.name} onChange={(name) => edit(part.id, { name })} className="w-full" />
          <Cell label={`Pattern of ${part.name}`} value={part.pattern} invalid={bad('pattern_unreadable', part.name)} onChange={(pattern) => edit(part.id, { pattern })} className="w-full font-mono" />
          <Cell label={`Example of ${part.name}`} value={part.example} invalid={bad('example_apart', part.name)} onChange={(example) => edit(part.id, { example })} className="w-full font-mono" />
          <Validity name={part.name} valid={part.valid} onChange={(valid) => edit(part.id, { valid })} />
          <Cell label={`Outcome of ${part.name}`} value={part.outcome} placeholder="what happens" onChange={(outcome) => edit(part.id, { outcome })} className="w-full" />
        </PartRow>
      ))}
    </Parts>
  );
}

function Classes({ field, onChange }: { readonly field: Field; readonly onChange: FieldProps['onChange'] }) {
  const edit = (id: string, part: Partial<OtherClass>): void => onChange((f) => ({ ...f, classes: f.classes.map((c) => (c.id === id ? { ...c, ...part } : c)) }));
  const remove = (id: string): void => onChange((f) => ({ ...f, classes: f.classes.filter((c) => c.id !== id) }));
  const offered = [...offeredClasses(field.type.kind), { kind: 'tooLong' as const, example: '' }, { kind: 'example' as const, example: 'a value' }];
  const left = offered.filter((o, i) => offered.findIndex((p) => p.kind === o.kind) === i && (o.kind === 'example' || !field.classes.some((c) => c.kind === o.kind)));
  return (
    <>
      {field.classes.length > 0 && (
        <Parts head={['Other kind of value', 'for example', '', '', 'then']}>
          {field.classes.map((c) => (
            <PartRow key={c.id} name={c.name} wide onRemove={() => remove(c.id)}>
              <Cell label="Name of the kind of value" value={c.name} onChange={(name) => edit(c.id, { name })} className="w-full" />
              {c.kind === 'tooLong' ? (
                <Cell label={`Most characters before ${c.name}`} value={String(c.limit)} prefix="over" onChange={(text) => edit(c.id, { limit: Math.min(1_000_000, Number(text.replaceAll(/\D/g, ''))) })} className="w-full font-mono" />
              ) : (
                <Cell label={`Example of ${c.name}`} value={c.kind === 'missing' ? 'no value' : c.kind === 'empty' ? '""' : c.example} readOnly={c.kind === 'missing' || c.kind === 'empty'} onChange={(example) => edit(c.id, { example })} className="w-full font-mono" />
              )}
              <Validity name={c.name} valid={c.valid} onChange={(valid) => edit(c.id, { valid })} />
              <Cell label={`Outcome of ${c.name}`} value={c.outcome} placeholder="what happens" onChange={(outcome) => edit(c.id, { outcome })} className="w-full" />
            </PartRow>
          ))}
        </Parts>
      )}
      <div className="mt-2 flex flex-wrap items-center gap-x-3 gap-y-1 text-xs text-ink2">
        Also to be shown:
        {left.map((o) => (
          <AddButton key={o.kind} onAdd={() => onChange((f) => ({ ...f, classes: [...f.classes, newClass(o.kind, o.example)] }))}>
            {CLASS_WORD[o.kind]}
          </AddButton>
        ))}
      </div>
    </>
  );
}
