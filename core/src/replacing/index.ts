export { placeName, type PlaceName } from './placeName.ts';
export { NO_OWN_TEXTS, TEXT_PARTS, textPlaces, type OwnTexts, type TextPart, type TextPlace } from './places.ts';
export { placesFound, withReplaced, type FoundPlace, type Replacing } from './replacing.ts';
export { finderOf, replacedIn, type Finder, type Match, type Search } from './search.ts';
