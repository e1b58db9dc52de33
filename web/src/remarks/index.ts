export { Remarks } from './Remarks.tsx';
