import { useEffect, useState } from 'react';
import { isDialogOpen } from '../focus/index.ts';
import { useLatest } from '../look/index.ts';

/**
 * Files that are dropped anywhere on the page or pasted into it, unless something on it takes them first. Answers
 * whether some are held over the page. What is copied from a spreadsheet brings a picture of itself: its text is meant.
 */
export function useFilesFromOutside(enabled: boolean, onFiles: (files: readonly File[]) => void): boolean {
  const [over, setOver] = useState(false);
  const take = useLatest(onFiles);
  useEffect(() => {
    if (!enabled) return undefined;
    const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') === true && !isDialogOpen(document);
    const dragOver = (event: DragEvent): void => {
      if (!hasFiles(event)) return;
      // Without it the browser would leave the page and show the file.
      event.preventDefault();
      setOver(true);
    };
    const leave = (event: DragEvent): void => {
      if (event.relatedTarget === null) setOver(false);
    };
    const drop = (event: DragEvent): void => {
      setOver(false);
      if (event.defaultPrevented || !hasFiles(event)) return;
      event.preventDefault();
      take.current([...(event.dataTransfer?.files ?? [])]);
    };
    const paste = (event: ClipboardEvent): void => {
      const files = filesPasted(event.clipboardData);
      if (event.defaultPrevented || files.length === 0 || isDialogOpen(document)) return;
      event.preventDefault();
      take.current(files);
    };
    document.addEventListener('dragover', dragOver);
    document.addEventListener('dragleave', leave);
    document.addEventListener('drop', drop);
    document.addEventListener('paste', paste);
    return () => {
      document.removeEventListener('dragover', dragOver);
      document.removeEventListener('dragleave', leave);
      document.removeEventListener('drop', drop);
      document.removeEventListener('paste', paste);
    };
  }, [enabled, take]);
  return over;
}

/** The files on a clipboard, when no text is meant. */
export function filesPasted(data: DataTransfer | null): File[] {
  if (data === null || data.types.some((type) => type === 'text/plain' || type === 'text/html')) return [];
  return [...data.files];
}
