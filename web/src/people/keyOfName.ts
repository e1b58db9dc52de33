/** `Água da Serra, billing` as `agua-da-serra-billing`: small letters, digits and hyphens, a letter first. */
export function keyOfName(name: string): string {
  const plain = name.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();
  return plain.replaceAll(/[^a-z0-9]+/g, '-').replace(/^[^a-z]+/, '').slice(0, 40).replace(/-+$/, '');
}
