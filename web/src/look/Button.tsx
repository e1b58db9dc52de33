import type { ButtonHTMLAttributes } from 'react';

const LOOK = {
  accent: 'bg-blue text-on-accent border-blue hover:brightness-110',
  plain: 'bg-page text-ink border-rule2 hover:bg-page2',
} as const;

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** One accent button a page. */
  readonly look?: keyof typeof LOOK;
}

export function Button({ look = 'plain', className = '', type = 'button', ...rest }: Props) {
  return (
    <button
      type={type}
      className={`inline-flex h-8 items-center gap-1.5 whitespace-nowrap rounded-panel border px-3 text-sm font-semibold disabled:cursor-default disabled:opacity-55 ${LOOK[look]} ${className}`}
      {...rest}
    />
  );
}

/** An action in running text. */
export function TextButton({ className = '', type = 'button', ...rest }: ButtonHTMLAttributes<HTMLButtonElement>) {
  return <button type={type} className={`inline-block min-h-6 text-left underline first-letter:uppercase decoration-rule2 underline-offset-2 hover:decoration-current disabled:no-underline disabled:opacity-60 ${className}`} {...rest} />;
}
