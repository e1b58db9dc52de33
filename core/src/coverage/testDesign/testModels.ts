import { eventId, fieldId, stateId, transitionId, type Model } from '../../conditions/index.ts';
import { ranges } from './testDesign.ts';

const named = (id: string, aliases: string[] = []) => ({ id, value: id, aliases });
const yesNo = [named('yes', ['sí']), named('no')];
const factor = (id: string, ...values: string[]) => ({ id: fieldId(id), name: id, values: values.map((v) => ({ ...named(v.replace('!', '')), valid: !v.startsWith('!'), base: false, outcome: v.startsWith('!') ? 'refused' : '' })) });
/** A small model of each kind. */
export const MODELS: Record<string, Model> = {
  plain: { kind: 'plain' },
  ranges,
  table: {
    kind: 'decisionTable',
    conditions: [{ id: fieldId('arrears'), name: 'arrears', values: yesNo }, { id: fieldId('plan'), name: '<plan>', values: yesNo }],
    actions: [{ id: 'a', name: 'discount' }],
    rules: [
      { id: 'r1', entries: { arrears: ['no'] }, impossible: false, actions: { a: '30 %' } },
      { id: 'r2', entries: { arrears: ['yes'], plan: ['yes'] }, impossible: false, actions: { a: '10 %' } },
      { id: 'r3', entries: { arrears: ['yes'], plan: ['no'] }, impossible: false, actions: {} },
    ],
  },
  states: {
    kind: 'stateTransitions',
    states: ['A', 'B', 'C'].map((name, i) => ({ id: stateId(name), name, initial: i === 0, final: i === 2, place: null })),
    events: ['x', 'y', 'z'].map((name) => ({ id: eventId(name), name })),
    transitions: [['A', 'x', 'B', ''], ['B', 'y', 'C', ''], ['B', 'z', 'A', 'early'], ['B', 'z', 'B', 'late']].map(([from = '', event = '', to = '', guard = ''], i) => ({ id: transitionId(`t${i}`), from: stateId(from), event: eventId(event), to: stateId(to), guard, action: 'noted' })),
    level: 'switch1',
    invalidPairs: true,
  },
  combination: { kind: 'combination', factors: [factor('Channel', 'letter', 'SMS', '!fax'), factor('Consent', 'yes', 'no'), factor('Urgent', 'yes', 'no')], constraints: [{ id: 'c', text: 'if Channel = SMS then Consent = yes' }], strength: 'pairs', groups: [], seed: 1 },
};
