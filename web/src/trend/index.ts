export { TrendPage } from './TrendPage.tsx';
