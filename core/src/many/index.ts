export { editMany, type ManyEdit } from './editMany.ts';
