export { CaseImportPage } from './cases/CaseImportPage.tsx';
export { DesignImportPage } from './design/DesignImportPage.tsx';
export { FeatureImportPage } from './features/FeatureImportPage.tsx';
export { ImportPage } from './ImportPage.tsx';
