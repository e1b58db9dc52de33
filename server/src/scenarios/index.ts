export { Phrasebooks } from './phrasebooks.ts';
