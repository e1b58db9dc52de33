import { FolderUp } from 'lucide-react';
import { useRef, type InputHTMLAttributes } from 'react';
import { useDropzone } from 'react-dropzone';
import { Button } from '../../look/index.ts';

/** A whole folder may be chosen: an attribute that all browsers know and the types of React do not. */
const FOLDER = { webkitdirectory: '' } as InputHTMLAttributes<HTMLInputElement>;

/** Where features are chosen: files, a folder, a zip, or any of these dropped. */
export function ChooseFeatures({ onChoose }: { readonly onChoose: (files: readonly File[]) => void }) {
  const folder = useRef<HTMLInputElement>(null);
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({ onDrop: (files) => files.length > 0 && onChoose(files), noClick: true, noKeyboard: true });
  return (
    <>
      <div {...getRootProps({ tabIndex: -1 })} className={`mt-5 grid place-items-center rounded-[8px] border border-dashed px-6 py-12 text-center ${isDragActive ? 'border-blue bg-blue-wash' : 'border-rule2 bg-page2'}`}>
        <input {...getInputProps({ 'aria-label': 'Features to import', accept: '.feature,.zip' })} />
        <input ref={folder} {...FOLDER} type="file" aria-label="Folder of features to import" tabIndex={-1} className="sr-only" onChange={(event) => { onChoose([...(event.target.files ?? [])]); event.target.value = ''; }} />
        <FolderUp size={26} aria-hidden="true" className="text-ink2" />
        <p className="mt-2 font-serif text-lg font-semibold">Drop a folder or feature files here</p>
        <p className="mb-3 mt-0.5 text-sm text-ink2">Nothing is changed before you have seen what would be.</p>
        <p className="flex gap-2">
          <Button look="accent" onClick={() => folder.current?.click()}>
            Choose a folder
          </Button>
          <Button onClick={open}>Choose files</Button>
        </p>
      </div>
      <p className="mt-4 max-w-[70ch] text-sm text-ink2">
        Files that end in .feature, in their folders, or a zip of them. They stay as they are: comments, blank lines and tables too. A file that came in before changes its feature; what was changed here since is kept.
      </p>
    </>
  );
}
