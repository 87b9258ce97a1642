import type { Config } from '../config.ts';
import { type FileStore, FolderStore } from './file-store.ts';
import { ServiceStore } from './service-store.ts';

/** The store that the settings name: a service where there is one, else a folder. */
export const storeOf = async ({
  filesService,
  filesFolder,
}: Pick<Config, 'filesService' | 'filesFolder'>): Promise<FileStore> =>
  filesService ? ServiceStore.open(filesService) : new FolderStore(filesFolder);
