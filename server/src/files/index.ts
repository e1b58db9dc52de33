export { ZipFile } from './zipFile.ts';
export { writeWorkbook } from './writeWorkbook.ts';
export { typeOfFile } from './typeOfFile.ts';
export { Files, fileHash, type FilesPlace } from './files.ts';
