import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { EXPORT_FORMATS, type ExportFormat } from '@caderno/contract';
import { ChevronDown } from 'lucide-react';
import { download, tellFailure } from '../api/index.ts';

const FORMAT_WORD: Record<ExportFormat, string> = { csv: 'CSV', xlsx: 'XLSX', md: 'Markdown', reqif: 'ReqIF' };

/** Saves the basis as a file, bare or with its conditions and figures. */
export function ExportMenu({ project }: { readonly project: string }) {
  const save = (format: ExportFormat, figures: 'yes' | 'no'): void => void download('exportBasis', { params: { project }, query: { format, figures } }).catch(tellFailure);
  const item = 'block w-full px-4 py-1.5 text-left data-focus:bg-blue-wash';
  return (
    <Menu>
      <MenuButton className="inline-flex h-8 items-center gap-1 rounded-[6px] border border-rule2 bg-page px-3 text-sm font-semibold hover:bg-page2">
        Export <ChevronDown size={13} aria-hidden="true" />
      </MenuButton>
      <MenuItems anchor={{ to: 'bottom end', gap: 4 }} className="z-50 w-64 rounded-[6px] border border-rule2 bg-page py-1.5 text-sm focus:outline-none">
        {EXPORT_FORMATS.map((format) => (
          <MenuItem key={format}>
            <button type="button" className={item} onClick={() => save(format, 'no')}>
              {FORMAT_WORD[format]}
            </button>
          </MenuItem>
        ))}
        <div className="mx-4 my-1 border-t border-rule" />
        {EXPORT_FORMATS.map((format) => (
          <MenuItem key={`${format}-figures`}>
            <button type="button" className={item} onClick={() => save(format, 'yes')}>
              {FORMAT_WORD[format]}, with conditions and figures
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
