export { readScenarioEffort } from './effort.ts';
export { Phrasebooks } from './phrasebooks.ts';
