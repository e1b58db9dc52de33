export { endReadLink, listReadLinks, makeReadLink, openReadLink, type Giver } from './readLinks.ts';
