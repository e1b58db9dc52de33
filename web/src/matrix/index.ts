export { MatrixPage } from './MatrixPage.tsx';
