/** Revisions of the documents that this window has open, by kind and id. */
const revisions = new Map<string, number>();

export function setRevision(kind: string, id: string, revision: number): void {
  revisions.set(`${kind}/${id}`, revision);
}

/** Whether the server has another revision of an open document than this window. */
export function isNewer(kind: string, id: string, revision: number | undefined): boolean {
  const own = revisions.get(`${kind}/${id}`);
  return own !== undefined && (revision === undefined || revision > own);
}
