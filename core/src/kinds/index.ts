export { KINDS, linksOf, meaningOf, versionsNamedIn, withPinsOn, withTargets, withTargetsSeen, withTraceLinks, wordsOf, type Content, type ContentOfKind, type KindAndContent } from './kinds.ts';
