/** A place in a content, as a person calls it: `steps/s3/expected` is “Steps › s3 › expected”. */
export function pathWords(path: string): string {
  const words = path.split('/').map((part) => (part === '(order)' ? 'order' : part.replaceAll(/([A-Z])/g, ' $1').toLowerCase()));
  const text = words.join(' › ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}
