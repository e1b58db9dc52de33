import './look/theme.css';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.tsx';
import { followPrinting, startTheme } from './look/index.ts';

const root = document.getElementById('root');
if (root === null) throw new Error('index.html has an element for the application');
startTheme();
followPrinting();
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
