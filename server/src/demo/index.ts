export { isEmptyInstallation, loadDemo } from './load.ts';
