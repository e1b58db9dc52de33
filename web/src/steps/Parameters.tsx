import { fitsType, isParameterName, parametersIn, type Parameter, type ParameterId } from '@caderno/core/cases';
import type { Constants, Surfaced } from '@caderno/core/shared';
import { X } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import { Choose, PARAMETER_TYPE_WORD, TextButton, countOf, options, IconButton } from '../look/index.ts';

interface Props {
  readonly parameters: readonly Parameter[];
  /** The texts in which parameters stand. */
  readonly texts: readonly string[];
  /** Those of what is used here that are given no value by it. */
  readonly surfaced: readonly Surfaced[];
  readonly constants: Constants;
  readonly canEdit: boolean;
  readonly onSet: (id: ParameterId, part: Partial<Parameter>) => void;
  readonly onRename: (parameter: Parameter, name: string) => void;
  readonly onRemove: (id: ParameterId) => void;
  readonly onDeclare: (name: string, like?: Parameter) => void;
}

const GRID = 'grid grid-cols-[minmax(7rem,1fr)_8.5rem_minmax(6rem,1fr)_minmax(8rem,1.6fr)_1.75rem] items-center gap-2';

/** Parameters: type, default and description; undeclared ones, and those that come up from what is used, can be declared with a click. */
export const Parameters = memo(function Parameters({ parameters, texts, surfaced, constants, canEdit, onSet: set, onRename, onRemove, onDeclare }: Props) {
  const used = useMemo(() => [...new Set(texts.flatMap(parametersIn))], [texts]);
  const undeclared = used.filter((name) => !parameters.some((p) => p.name === name) && !constants.has(name));
  const comingUp = surfaced.filter((s) => !parameters.some((p) => p.name === s.parameter.name));
  return (
    <div className="mt-1.5 text-sm">
      {parameters.length > 0 && (
        <div className={`${GRID} pb-0.5 text-xs text-ink2`} aria-hidden="true">
          <span>name</span>
          <span>type</span>
          <span>default</span>
          <span>description</span>
        </div>
      )}
      {parameters.map((parameter) => (
        <div key={parameter.id} className={`${GRID} border-t border-rule py-1`}>
          <NameField key={parameter.name} parameters={parameters} texts={texts} parameter={parameter} canEdit={canEdit} onRename={(name) => onRename(parameter, name)} />
          <span>
            <Choose label={`Type of ${parameter.name}`} value={parameter.type} options={options(PARAMETER_TYPE_WORD)} onChange={(type) => set(parameter.id, { type })} disabled={!canEdit} />
          </span>
          <input
            aria-label={`Default of ${parameter.name}`}
            aria-invalid={!fitsType(parameter.type, parameter.default)}
            title={fitsType(parameter.type, parameter.default) ? undefined : `Not a ${PARAMETER_TYPE_WORD[parameter.type]}; a default is always a valid value`}
            value={parameter.default}
            readOnly={!canEdit}
            placeholder="no default"
            onChange={(e) => set(parameter.id, { default: e.target.value })}
            className="field-quiet h-7 w-full font-mono text-xs aria-invalid:border-brick"
          />
          <input aria-label={`Description of ${parameter.name}`} value={parameter.description} readOnly={!canEdit} placeholder="what it stands for" maxLength={300} onChange={(e) => set(parameter.id, { description: e.target.value })} className="field-quiet h-7 w-full" />
          {canEdit && (
            <IconButton label={`Remove the parameter ${parameter.name}`} title="Remove, with its column of data" onClick={() => onRemove(parameter.id)} icon={<X size={13} aria-hidden="true" />} />
          )}
        </div>
      ))}
      {undeclared.length > 0 && (
        <p className="mt-1.5 text-brick">
          {undeclared.map((name) => `<${name}>`).join(', ')} {undeclared.length === 1 ? 'is' : 'are'} used and not declared.{' '}
          {canEdit && <TextButton onClick={() => undeclared.forEach((name) => onDeclare(name))}>Declare {undeclared.length === 1 ? 'it' : 'them'}</TextButton>}
        </p>
      )}
      {comingUp.length > 0 && (
        <p className="mt-1.5 text-ink2">
          From what is used here:{' '}
          {comingUp.map(({ parameter }) => (
            <span key={parameter.name} className="mr-2 whitespace-nowrap">
              <span className="cad-parameter">&lt;{parameter.name}&gt;</span> <span className="text-xs">{parameter.default === '' ? 'without a default' : `default ${parameter.default}`}</span>{' '}
              {canEdit && (
                <TextButton className="text-xs" onClick={() => onDeclare(parameter.name, parameter)}>
                  give it values here
                </TextButton>
              )}
            </span>
          ))}
        </p>
      )}
      {parameters.length === 0 && undeclared.length === 0 && comingUp.length === 0 && <p className="text-ink2">None yet<span className="print:hidden">: type &lt; in a step to make one</span>.</p>}
    </div>
  );
});

interface NameProps extends Pick<Props, 'parameters' | 'texts'> {
  readonly parameter: Parameter;
  readonly canEdit: boolean;
  readonly onRename: (name: string) => void;
}

/** Renames when one leaves the field, everywhere at once; says beforehand how many places that is. */
function NameField({ parameters, texts, parameter, canEdit, onRename }: NameProps) {
  const [name, setName] = useState(parameter.name);
  const taken = parameters.some((p) => p.id !== parameter.id && p.name === name);
  const invalid = taken || !isParameterName(name);
  const places = countUses(texts, parameter.name);
  const leave = (): void => (invalid ? setName(parameter.name) : onRename(name));
  return (
    <span className="cad-parameter relative inline-flex items-center justify-self-start">
      <span aria-hidden="true">&lt;</span>
      <input
        aria-label={`Name of the parameter ${parameter.name}`}
        aria-invalid={invalid}
        value={name}
        readOnly={!canEdit}
        onChange={(e) => setName(e.target.value)}
        onBlur={leave}
        onKeyDown={(e) => {
          if (e.key === 'Enter') e.currentTarget.blur();
          if (e.key === 'Escape') setName(parameter.name);
        }}
        className="min-w-3 bg-transparent [field-sizing:content] focus:outline-none"
      />
      <span aria-hidden="true">&gt;</span>
      {name !== parameter.name && (
        <span role="status" className="absolute left-0 top-7 z-10 whitespace-nowrap rounded border border-rule2 bg-page px-2 py-1 font-sans text-xs">
          {invalid ? (taken ? 'another parameter has this name' : 'a name begins with a letter or digit and has no brackets') : `changes ${countOf(places, 'place')} here`}
        </span>
      )}
    </span>
  );
}

function countUses(texts: readonly string[], name: string): number {
  return texts.join('\n').split(`<${name}>`).length - 1;
}
