export { placeName, type PlaceName } from './placeName.ts';
export { TEXT_PARTS, textPlaces, type TextPart, type TextPlace } from './places.ts';
export { placesFound, withReplaced, type FoundPlace } from './replacing.ts';
export { finderOf, replacedIn, type Finder, type Match, type Search } from './search.ts';
