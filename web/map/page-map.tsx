export { TreeSheet as PageMap } from '../tree/tree-sheet.tsx';
