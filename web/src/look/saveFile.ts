/** Hands a file that was made in the page to the person. */
export function saveFile(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name.replaceAll(/[\\/:*?"<>|]+/g, ' ');
  link.click();
  // The browser takes the file after the click is through.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
