export { ZipFile } from './zipFile.ts';
export { typeOfFile } from './typeOfFile.ts';
export { Files, fileHash, type FilesPlace } from './files.ts';
