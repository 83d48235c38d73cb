import { ServerRefusal } from '../../api/client';
import { msg } from '../../language/language';

/** Asks the server for a file and hands it to the browser to be saved, by the name that the server gives it or else `name`. */
export async function download(
  method: 'GET' | 'POST',
  path: string,
  name: string,
  body?: unknown,
): Promise<void> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: body === undefined ? undefined : { 'Content-Type': 'application/json' },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new ServerRefusal(msg('The server cannot be reached. Is Scenograph still running?'), 0);
  }
  if (!response.ok) {
    const said = (await response.json().catch(() => ({}))) as { message?: string };
    throw new ServerRefusal(
      said.message ?? msg('The server answered {status}.', { status: response.status }),
      response.status,
    );
  }
  const url = URL.createObjectURL(await response.blob());
  const link = document.createElement('a');
  link.href = url;
  link.download = /filename="([^"]+)"/.exec(response.headers.get('Content-Disposition') ?? '')?.[1] ?? name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
