/** The first stop of Tab: past the frame, to the page. */
export function SkipLink() {
  const skip = (event: React.MouseEvent): void => {
    event.preventDefault();
    document.getElementById('page')?.focus();
  };
  return (
    <a href="#page" onClick={skip} className="fixed left-3 top-2 z-50 -translate-y-16 rounded-panel bg-blue px-4 py-2 text-sm font-semibold text-on-accent focus:translate-y-0">
      Skip to the page
    </a>
  );
}
