import { useEffect, useRef } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly readOnly: boolean;
  readonly onChange: (value: string) => void;
  /** Just made: the title is to be written first. */
  readonly focus?: boolean;
}

/** The title of an artefact, written where it stands. */
export function TitleField({ label, value, readOnly, onChange, focus = false }: Props) {
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    if (focus) field.current?.select();
  }, [focus]);
  return (
    <textarea
      ref={field}
      aria-label={label}
      rows={1}
      maxLength={300}
      readOnly={readOnly}
      value={value}
      placeholder="Give it a title"
      onChange={(event) => onChange(event.target.value.replaceAll('\n', ' '))}
      className="field-quiet mt-1 block w-[calc(100%+6px)] resize-none font-serif text-2xl font-semibold leading-8 [field-sizing:content] placeholder:text-ink3"
    />
  );
}
