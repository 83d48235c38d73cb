import { beforeEach, expect, test } from '@jest/globals';
import { act, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { delay, http, HttpResponse } from 'msw';
import { mutate, SWRConfig } from 'swr';
import { server } from '../../test/server';
import { useRoute } from '../api/client';
import { FetchBar, FetchWatch, useFailing } from './failing';
import { Trouble } from './states';

function Recipes() {
  const { data, error } = useRoute('GET /api/recipes');
  return <p>{data ? `${data.length} recipes` : error ? 'no recipes' : 'fetching'}</p>;
}
const shown = (children = <Recipes />) =>
  render(
    <SWRConfig value={{ shouldRetryOnError: false, dedupingInterval: 0 }}>
      <FetchWatch>
        <FetchBar />
        {children}
      </FetchWatch>
    </SWRConfig>,
  );

beforeEach(async () => {
  useFailing.setState({ failed: new Map(), slow: new Set(), told: 0 });
  await mutate(() => true, undefined, { revalidate: false });
});

const FAULTS: Record<string, [() => Response | Promise<Response>, RegExp]> = {
  'a refusal with a sentence': [
    () => HttpResponse.json({ message: 'The database is away.' }, { status: 500 }),
    /The database is away/,
  ],
  'a gateway’s page': [
    () => new HttpResponse('<html>502</html>', { status: 502 }),
    /cannot answer just now \(502\)/,
  ],
  'half an answer': [() => new HttpResponse('[{"id": 1', { status: 200 }), /came incomplete/],
  'no network': [() => HttpResponse.error(), /cannot be reached/],
};

test.each(Object.keys(FAULTS))(
  '%s is said over the screen, with a way to try again that works',
  async (name) => {
    const [answer, reason] = FAULTS[name];
    server.use(http.get('*/api/recipes', answer));
    shown();
    expect(await screen.findByRole('alert')).toHaveTextContent(reason);
    server.use(http.get('*/api/recipes', () => HttpResponse.json([])));
    await userEvent.click(screen.getByRole('button', { name: 'Try again' }));
    expect(await screen.findByText('0 recipes')).toBeVisible();
    await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  },
);

test('a screen that says itself what is wrong is not told over', async () => {
  server.use(http.get('*/api/recipes', () => HttpResponse.json({ message: 'Away.' }, { status: 500 })));
  shown(
    <>
      <Recipes />
      <Trouble error={new Error('Away.')} />
    </>,
  );
  await screen.findByText('no recipes');
  expect(screen.getAllByRole('alert')).toHaveLength(1);
  expect(screen.getByRole('button', { name: 'Try again' })).toBeVisible();
});

test('an answer that takes long is said, until it comes', async () => {
  server.use(
    http.get('*/api/recipes', async () => {
      await delay(150);
      return HttpResponse.json([]);
    }),
  );
  render(
    <SWRConfig value={{ shouldRetryOnError: false, dedupingInterval: 0 }}>
      <FetchWatch long={30}>
        <FetchBar />
        <Recipes />
      </FetchWatch>
    </SWRConfig>,
  );
  expect(await screen.findByRole('status')).toHaveTextContent('takes longer than usual');
  await screen.findByText('0 recipes');
  await waitFor(() => expect(screen.queryByRole('status')).toBeNull());
});

test('a request that a later one has overtaken does not take long for ever', async () => {
  let asked = 0;
  server.use(
    http.get('*/api/recipes', async () => {
      if (++asked === 1) await delay(20);
      return HttpResponse.json([]);
    }),
  );
  render(
    <SWRConfig value={{ shouldRetryOnError: false, dedupingInterval: 0 }}>
      <FetchWatch long={60}>
        <FetchBar />
        <Recipes />
      </FetchWatch>
    </SWRConfig>,
  );
  await act(() => mutate('/api/recipes'));
  await screen.findByText('0 recipes');
  expect(asked).toBe(2);
  await delay(200);
  expect(screen.queryByText(/longer than usual/)).toBeNull();
});
