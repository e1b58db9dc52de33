/** Values as they are typed or pasted, commas, tabs or lines between them: each once, in their order. */
export function typedList(text: string): string[] {
  return [...new Set(text.split(/[,\t\n]/u).map((value) => value.trim()).filter((value) => value !== ''))];
}
