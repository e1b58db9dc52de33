import { bindText, type BoundValue, type Parameter, type ParameterId } from '@caderno/core/cases';
import type { Constants } from '@caderno/core/shared';
import { memo } from 'react';
import { TextWithTerms } from '../text/index.ts';
import { boundValueText } from './boundValueText.ts';

interface Props {
  readonly text: string;
  readonly parameters: readonly Parameter[];
  readonly values: ReadonlyMap<ParameterId, BoundValue> | null;
  readonly constants: Constants;
}

const NO_VALUES: ReadonlyMap<ParameterId, BoundValue> = new Map();

/** A text to be read: parameters marked, with the values of the chosen row in place. */
export const ParameterView = memo(function ParameterView({ text, parameters, values, constants }: Props) {
  return (
    <>
      {bindText(text, parameters, values ?? NO_VALUES).map((part, i) => {
        if (part.kind === 'text') return <TextWithTerms key={i} text={part.text} />;
        const constant = part.value.kind === 'undeclared' ? constants.get(part.name) : undefined;
        const undeclared = part.value.kind === 'undeclared' && constant === undefined;
        return (
          <span key={i} className="whitespace-nowrap">
            <span className={undeclared ? 'cad-parameter cad-undeclared' : 'cad-parameter'} title={undeclared ? `<${part.name}> is not declared` : undefined}>
              &lt;{part.name}&gt;
            </span>
            {constant !== undefined && <span className="cad-value whitespace-normal">{constant}</span>}
            {values !== null && part.value.kind !== 'undeclared' && <span className="cad-value whitespace-normal">{boundValueText(part.value)}</span>}
          </span>
        );
      })}
    </>
  );
});
