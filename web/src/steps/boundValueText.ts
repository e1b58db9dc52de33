import type { BoundValue } from '@caderno/core/cases';
import type { OpenedValue } from '@caderno/core/shared';

/** A bound value as it is shown in place. */
export function boundValueText(value: BoundValue | OpenedValue): string {
  switch (value.kind) {
    case 'value':
      return value.text === '' ? '“”' : value.text;
    case 'missing':
      return '(missing)';
    case 'unbound':
      return '(no value)';
  }
}
