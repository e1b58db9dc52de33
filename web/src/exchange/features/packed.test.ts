/** @jest-environment ./web/test/browserEnvironment.mjs */
import { expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { packed } from './packed.ts';

function file(path: string, text = path, how: 'chosen' | 'dropped' = 'chosen'): File {
  const made = new File([text], path.slice(path.lastIndexOf('/') + 1));
  return Object.defineProperties(made, how === 'chosen' ? { webkitRelativePath: { value: path } } : { webkitRelativePath: { value: '' }, path: { value: path } });
}
const paths = async (files: readonly File[]) => {
  const made = await packed(files);
  return made === null ? null : [made.name, ...Object.keys(unzipSync(made.bytes))];
};

test('a folder is packed by its features alone, by their paths below it', async () => {
  expect(await paths([file('suite/a/x.feature'), file('suite/y.FEATURE'), file('suite/readme.md')])).toEqual(['suite/', 'a/x.feature', 'y.FEATURE']);
  expect(await paths([file('./one/x.feature', 'x', 'dropped'), file('/two/x.feature', 'x', 'dropped')])).toEqual(['features.zip', 'one/x.feature', 'two/x.feature']);
});

test('a feature or a zip goes as it is; without any there is nothing to send', async () => {
  const alone = await packed([new File(['Feature: x'], 'x.feature')]);
  expect([alone?.name, new TextDecoder().decode(alone?.bytes)]).toEqual(['x.feature', 'Feature: x']);
  expect((await packed([new File([new Uint8Array([1, 2])], 'x.ZIP')]))?.bytes).toEqual(new Uint8Array([1, 2]));
  expect(await packed([new File(['x'], 'x.txt')])).toBeNull();
  expect(await packed([])).toBeNull();
});
