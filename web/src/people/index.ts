export { SignIn } from './SignIn.tsx';
export { SetUp } from './SetUp.tsx';
export { NewProject } from './NewProject.tsx';
export { PeoplePage } from './PeoplePage.tsx';
export { AccountPage } from './AccountPage.tsx';
export { ServerPage } from './ServerPage.tsx';
export { ResetPassword } from './ResetPassword.tsx';
