export { ReuseGraphPage } from './ReuseGraphPage.tsx';
