const PREFIX = 'marvet/draft/';

/** Drafts of dialogs in this browser tab, by record; gone with the tab. */
export const keptDrafts = {
  get(key: string): object | null {
    const text = sessionStorage.getItem(PREFIX + key);
    if (text === null) return null;
    try {
      return JSON.parse(text) as object;
    } catch (error) {
      console.warn(`The draft of ${key} cannot be read and is dropped`, error);
      sessionStorage.removeItem(PREFIX + key);
      return null;
    }
  },
  set(key: string, values: object): void {
    try {
      sessionStorage.setItem(PREFIX + key, JSON.stringify(values));
    } catch (error) {
      console.warn(`This browser does not keep the draft of ${key}`, error);
    }
  },
  remove(key: string): void {
    sessionStorage.removeItem(PREFIX + key);
  },
};
