export { SettingsPage } from './SettingsPage.tsx';
