/** A row as it is sent: without what only the database needs. */
export function shown<T extends { workspaceId: string }>({
  workspaceId: _,
  ...row
}: T): Omit<T, 'workspaceId'> {
  return row;
}
