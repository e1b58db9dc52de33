export { pathOfItem, withItems } from './itemPlace.ts';
export { offeredOn, withOffer } from './offer.ts';
export { isTakenBack, mentionedIn, remarkId, type Remark, type Offer, type RemarkId, type RemarkThread } from './remark.ts';
export { WHOLE, byPlace, placeNow, placeOn, saidAt, valueAt, type PlaceNow, type RemarkPlace } from './remarkPlace.ts';
