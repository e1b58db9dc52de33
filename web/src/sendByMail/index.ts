export { SendByMailButton } from './SendByMailButton.tsx';
