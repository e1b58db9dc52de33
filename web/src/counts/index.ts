export { CountsPage } from './CountsPage.tsx';
