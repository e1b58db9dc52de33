export { SecretBox, readSecretKey } from './secretBox.ts';
export { keepSecrets, revealSecret, sealStoredSecrets } from './secretConstants.ts';
