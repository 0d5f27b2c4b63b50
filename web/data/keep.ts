const PREFIX = 'marvet/';

/** A value kept in this browser, or the fallback when there is none or it has another shape. */
export function kept<Value extends object>(name: string, fallback: Value): Value {
  const text = localStorage.getItem(PREFIX + name);
  if (text === null) return fallback;
  try {
    return { ...fallback, ...(JSON.parse(text) as Partial<Value>) };
  } catch (error) {
    console.warn(`What this browser kept as ${name} cannot be read and is started afresh`, error);
    return fallback;
  }
}

/** Keeps a value in this browser. Private windows may refuse; the page then works without. */
export function keep(name: string, value: object): void {
  try {
    localStorage.setItem(PREFIX + name, JSON.stringify(value));
  } catch (error) {
    console.warn(`This browser does not keep ${name}`, error);
  }
}
