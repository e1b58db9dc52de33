import { expect, test } from '@jest/globals';
import { PERSON_ACTIONS } from '@caderno/contract';
import { personEventSentence } from './personEventSentence.ts';

const event = { id: 1, at: '2026-11-27T10:00:00Z', by: 'Rui A.', about: 'Inês V.', project: 'Fonte Clara', detail: 'reader → lead' };

test('every entry says who did it, or to whom', () => {
  for (const action of PERSON_ACTIONS) expect([action, personEventSentence({ ...event, action })]).toEqual([action, expect.stringMatching(/Rui A\.|Inês V\./)]);
  expect(personEventSentence({ ...event, action: 'roleChanged' })).toBe('Rui A. changed the role of Inês V. in Fonte Clara: reader → lead');
});

test('whoever is not known is somebody, and what is of no project names none', () => {
  expect(personEventSentence({ ...event, action: 'signInRefused', by: null, about: null, project: null, detail: '10.0.0.7' })).toBe('A wrong password for somebody from 10.0.0.7');
  expect(personEventSentence({ ...event, action: 'hostsChanged', detail: '' })).toBe('Rui A. changed the hosts that trackers may have: none');
});
