export { editMany, tagsRenamed, type EditingProject, type ManyEdit } from './editMany.ts';
