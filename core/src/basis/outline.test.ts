import { expect, test, describe } from '@jest/globals';
import { artefactId } from '../artefacts/index.ts';
import { makesCircle, moveTowards, movedPlaces, orderOutline, type OutlinePlace } from './index.ts';

const at = (n: number, parent: number | null, position: number): OutlinePlace => ({ id: artefactId('requirement', n), parent: parent === null ? null : artefactId('requirement', parent), position });
const outline = [at(3, 1, 2), at(1, null, 1), at(2, 1, 1), at(4, null, 2), at(5, 9, 3)];

test('parents before children, by position, strays at the top', () => {
  expect(orderOutline(outline).map((e) => [e.place.id, e.depth, e.children])).toEqual([['R-1', 0, 2], ['R-2', 1, 0], ['R-3', 1, 0], ['R-4', 0, 0], ['R-5', 0, 0]]);
});

describe('direction keys', () => {
  const move = (n: number, direction: Parameters<typeof moveTowards>[2]) => moveTowards(outline, artefactId('requirement', n), direction);
  test('up and down among siblings', () => {
    expect(move(3, 'up')).toEqual({ parent: 'R-1', after: null });
    expect(move(2, 'down')).toEqual({ parent: 'R-1', after: 'R-3' });
    expect([move(2, 'up'), move(3, 'down')]).toEqual([null, null]);
  });
  test('in, below the sibling before, as its last child', () => expect(move(4, 'in')).toEqual({ parent: 'R-1', after: 'R-3' }));
  test('out, after the parent', () => expect(move(2, 'out')).toEqual({ parent: null, after: 'R-1' }));
  test('nowhere to go', () => expect([move(1, 'in'), move(1, 'out')]).toEqual([null, null]));
});

test('a move is seen in the order: before, after and below others', () => {
  const after = (n: number, parent: number | null, behind: number | null) =>
    orderOutline(movedPlaces(outline, artefactId('requirement', n), { parent: parent === null ? null : artefactId('requirement', parent), after: behind === null ? null : artefactId('requirement', behind) })).map((e) => [e.place.id, e.depth]);
  expect(after(3, 1, null)).toEqual([['R-1', 0], ['R-3', 1], ['R-2', 1], ['R-4', 0], ['R-5', 0]]);
  expect(after(4, 1, 2)).toEqual([['R-1', 0], ['R-2', 1], ['R-4', 1], ['R-3', 1], ['R-5', 0]]);
  expect(after(2, null, 1)).toEqual([['R-1', 0], ['R-3', 1], ['R-2', 0], ['R-4', 0], ['R-5', 0]]);
});

test('nothing can stand below itself', () => {
  expect([makesCircle(outline, 'R-1', 'R-3'), makesCircle(outline, 'R-1', 'R-1'), makesCircle(outline, 'R-3', 'R-1')]).toEqual([true, true, false]);
});
