export { editMany, type AnyContent, type ManyEdit } from './editMany.ts';
