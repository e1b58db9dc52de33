import type { ArtefactId } from '@caderno/core/artefacts';
import { useEffect, useRef } from 'react';
import { usePageName } from '../frame/index.ts';

interface Props {
  readonly id: ArtefactId;
  readonly value: string;
  readonly readOnly: boolean;
  readonly onChange: (value: string) => void;
  /** Just made: the title is to be written first. */
  readonly focus?: boolean;
  /** Enter leads on to what is written next. */
  readonly onEnter?: () => void;
}

/** The title of an artefact, written where it stands. */
export function TitleField({ id, value, readOnly, onChange, focus = false, onEnter }: Props) {
  const field = useRef<HTMLTextAreaElement>(null);
  usePageName(`${id} ${value}`);
  useEffect(() => {
    if (focus) field.current?.select();
  }, [focus]);
  return (
    <textarea
      ref={field}
      data-place="title"
      aria-label={`Title of ${id}`}
      rows={1}
      maxLength={300}
      readOnly={readOnly}
      value={value}
      placeholder="Give it a title"
      onChange={(event) => onChange(event.target.value.replaceAll('\n', ' '))}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || event.nativeEvent.isComposing) return;
        event.preventDefault();
        onEnter?.();
      }}
      className="field-quiet mt-1 block w-[calc(100%+6px)] resize-none font-serif text-2xl font-semibold leading-8 [field-sizing:content] placeholder:text-ink3"
    />
  );
}
