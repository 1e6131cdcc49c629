/** What a page keeps on its device, in place of `idb-keyval`. */
export const disk = new Map<number, { did: unknown }>();
export const createStore = () => null;
export const entries = async () => [...disk.entries()];
export const set = async (key: number, value: { did: unknown }) => void disk.set(key, value);
export const del = async (key: number) => void disk.delete(key);
