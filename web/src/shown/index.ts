export { ShownPage } from './ShownPage.tsx';
