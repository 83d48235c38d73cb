/**
 * A file from the server, for workers.
 * @param missing what is said where the server has it no longer
 * @throws an error with a sentence, where there is no answer or none that helps
 */
export async function storedFile(url: string, missing: string): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(url);
  } catch {
    // The browser's own words differ from one to the other and help nobody.
    throw new Error('The server cannot be reached. Is Scenograph still running?');
  }
  if (!response.ok) throw new Error(missing);
  return response;
}
