/** The first of a list that is known not to be empty. */
export function first<T>(list: T[]): T {
  const [one] = list;
  if (one === undefined) throw new Error('The list is empty.');
  return one;
}
