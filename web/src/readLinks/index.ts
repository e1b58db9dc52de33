export { ReadLinkLines } from './ReadLinkLines.tsx';
export { useReadLinks } from './useReadLinks.ts';
export { GiveLinkButton } from './GiveLinkButton.tsx';
