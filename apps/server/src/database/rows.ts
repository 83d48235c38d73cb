/** A pattern for `ilike` that finds `words` anywhere, as they are written. */
export const containing = (words: string) => `%${words.replace(/[\\%_]/g, '\\$&')}%`;

/** A row as it is sent: without what only the database needs. */
export function shown<T extends { workspaceId: string }>({
  workspaceId: _,
  ...row
}: T): Omit<T, 'workspaceId'> {
  return row;
}

/** A document's row as it is sent in a list: without the history, which only its editor needs. */
export function listed<T extends { workspaceId: string; history: unknown }>({
  workspaceId: _,
  history: __,
  ...row
}: T): Omit<T, 'workspaceId' | 'history'> {
  return row;
}
