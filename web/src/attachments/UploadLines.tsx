import { X } from 'lucide-react';
import { IconButton, TextButton } from '../look/index.ts';
import type { Uploads } from './useUploads.ts';

/** Files on their way, with how far they are, and those that were not kept, with the reason. */
export function UploadLines({ uploads }: { readonly uploads: Uploads }) {
  if (uploads.all.length === 0) return null;
  return (
    <ul aria-label="Files on their way" className="space-y-1 py-1">
      {uploads.all.map((upload) => (
        <li key={upload.key} className="flex items-start gap-1">
          <div className="min-w-0 flex-1">
            <p className="truncate" title={upload.file.name}>{upload.file.name}</p>
            {upload.failure === null ? (
              <progress aria-label={`How much of ${upload.file.name} is sent`} value={upload.sent} className="block h-1.5 w-full accent-blue" />
            ) : (
              <p role="alert" className="text-brick">
                {upload.failure} <TextButton onClick={() => uploads.again(upload)}>Try again</TextButton>
              </p>
            )}
          </div>
          <IconButton label={upload.failure === null ? `Stop ${upload.file.name}` : `Forget ${upload.file.name}`} icon={<X size={13} aria-hidden="true" />} onClick={() => uploads.drop(upload.key)} />
        </li>
      ))}
    </ul>
  );
}
