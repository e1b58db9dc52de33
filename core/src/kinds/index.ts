export { KINDS, linksOf, meaningOf, versionsNamedIn, withPinsOn, withTargetsSeen, wordsOf, type Content, type ContentOfKind, type KindAndContent } from './kinds.ts';
