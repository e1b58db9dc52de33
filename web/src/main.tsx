import './zodSetup.ts';

// Fetched only now: a bundler may run shared code of the application before the set-up above otherwise.
void import('./start.tsx');
