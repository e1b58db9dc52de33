/** @jest-environment ./web/test/browserEnvironment.mjs */
import { Menu, MenuButton, MenuItems } from '@headlessui/react';
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MenuLine } from './MenuLine.tsx';

afterEach(cleanup);

test('keys lead over what cannot be done now, and neither they nor the pointer do it', async () => {
  const picked: string[] = [];
  render(
    <Menu>
      <MenuButton>Files</MenuButton>
      <MenuItems>
        <MenuLine onPick={() => picked.push('import')}>Import</MenuLine>
        <MenuLine disabled onPick={() => picked.push('export')}>Export</MenuLine>
        <MenuLine onPick={() => picked.push('carry')}>Carry</MenuLine>
      </MenuItems>
    </Menu>,
  );
  await userEvent.click(screen.getByRole('button', { name: 'Files' }));
  await userEvent.click(await screen.findByRole('menuitem', { name: 'Export' }));
  await userEvent.keyboard('{Home}{ArrowDown}{Enter}');
  expect(picked).toEqual(['carry']);
});
