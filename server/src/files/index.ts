export { Files, fileHash, type FilesPlace } from './files.ts';
