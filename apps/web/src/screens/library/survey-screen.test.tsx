import { beforeEach, expect, test } from '@jest/globals';
import { edgeBetween, type PrintArea } from '@scenograph/core/surface/area';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { http, HttpResponse } from 'msw';
import { answering } from '../../../test/answering';
import { uuid } from '../../../test/listing';
import { sceneWithHistory, TABLE, UNSURVEYED } from '../../../test/scenes';
import { server } from '../../../test/server';
import { seeing } from '../../../test/surveying';
import { show } from '../../../test/show';
import type { SceneWithHistory } from '../../api/client';
import { allUnsent, dropUnsent } from '../../documents/outbox';
import { useNotices } from '../../ui/notices';
import { SurveyScreen } from './survey-screen';

const ID = uuid(51);
beforeEach(async () => {
  useNotices.setState({ list: [] });
  for (const { kind, id } of await allUnsent()) await dropUnsent(kind, id);
});

async function opened(survey = TABLE) {
  const kept = { stored: sceneWithHistory(ID, 'Bench', survey), bodies: [] as SceneWithHistory[] };
  const asked = answering({
    'GET /api/scenes/:id': () => kept.stored,
    'GET /api/photos': [],
    'DELETE /api/scenes/:id': ({ params }) => ({ removed: params.id }),
  });
  server.use(
    http.put('*/api/scenes/:id', async ({ request }) => {
      const body = (await request.json()) as SceneWithHistory;
      if (body.revision !== kept.stored.revision)
        return HttpResponse.json({ message: 'Changed elsewhere.', detail: kept.stored }, { status: 409 });
      kept.bodies.push(body);
      kept.stored = { ...kept.stored, ...body, revision: body.revision + 1 };
      return HttpResponse.json(kept.stored);
    }),
  );
  const shown = show(SurveyScreen, '/library/scenes/:id', `/library/scenes/${ID}`);
  await screen.findByRole('complementary', { name: 'Survey' });
  return { ...shown, kept, asked };
}
const section = (name: RegExp) =>
  within(screen.getByRole('complementary', { name: 'Survey' })).getByRole('button', { name });
const stored = () =>
  waitFor(() => expect(screen.getByTestId('saving')).toHaveTextContent(/^saved \d/), { timeout: 8000 });

test('what the measures say of the camera is told', async () => {
  await opened();
  expect(section(/Standing plane/)).toHaveTextContent('solved');
  expect(screen.getByText('Corners off by')).toBeVisible();
  expect(screen.queryByRole('alert')).toBeNull();
});

test('a size that is typed is stored, and undone by its name', async () => {
  const { user, kept } = await opened();
  await user.clear(screen.getByRole('textbox', { name: 'Width' }));
  await user.type(screen.getByRole('textbox', { name: 'Width' }), '80 cm{Enter}');
  await stored();
  expect(kept.bodies.at(-1)!.survey.plane!.widthMm).toBe(800);
  await user.click(screen.getByRole('button', { name: 'Undo: Standing plane' }));
  expect(screen.getByRole('textbox', { name: 'Width' })).toHaveValue('600');
});

test('a scene without measures says so, and a height is marked', async () => {
  const { user } = await opened(UNSURVEYED);
  expect(section(/Standing plane/)).toHaveTextContent('not known');
  await user.click(screen.getByRole('button', { name: 'Mark a height' }));
  expect(await screen.findByRole('textbox', { name: 'Height' })).toHaveValue('150');
  expect(section(/Standing plane/)).toHaveTextContent('solved');
});

test('measures that contradict one another are told and do not break the screen', async () => {
  const [a, b, c, d] = TABLE.plane!.corners;
  await opened({ ...TABLE, plane: { ...TABLE.plane!, corners: [a, b, d, c] } });
  expect(screen.getByRole('alert')).toHaveTextContent(/cross or fold/);
  expect(section(/Standing plane/)).toHaveTextContent('not known');
});

test('a change of somebody else meanwhile is put to the choice', async () => {
  const { user, kept } = await opened();
  kept.stored = { ...kept.stored, revision: 4, title: 'Theirs' };
  await user.clear(screen.getByRole('textbox', { name: 'Depth' }));
  await user.type(screen.getByRole('textbox', { name: 'Depth' }), '500{Enter}');
  const dialog = within(await screen.findByRole('alertdialog', undefined, { timeout: 8000 }));
  await user.click(dialog.getByRole('button', { name: /mine/i }));
  await stored();
  expect(kept.bodies.at(-1)).toMatchObject({ revision: 4, survey: { plane: { depthMm: 500 } } });
});

test('a scene is removed and leaves for the library, from where it can be brought back', async () => {
  const { user, address, asked } = await opened();
  await user.click(section(/About/));
  await user.click(screen.getByRole('button', { name: 'Remove from the library' }));
  await waitFor(() => expect(address()).toBe('/library'));
  expect(asked.map((a) => a.name)).toContain('DELETE /api/scenes/:id');
  expect(screen.getByText('"Bench" is removed.')).toBeVisible();
});

const FRONT: PrintArea = {
  id: 'front',
  title: 'Front',
  shape: 'bulge',
  corners: [
    [200, 100],
    [400, 100],
    [400, 400],
    [200, 400],
  ],
  edges: null,
  widthMm: 100,
  heightMm: 150,
  wrapDeg: null,
  bulgeMm: 0,
  material: 'paper',
  stock: 'light',
};
const bulging = () => {
  const [tl, tr, br, bl] = FRONT.corners;
  const edges = {
    top: edgeBetween(tl, tr),
    bottom: edgeBetween(bl, br),
    left: edgeBetween(tl, bl),
    right: edgeBetween(tr, br),
  };
  return { ...TABLE, areas: [{ ...FRONT, edges }] };
};

test('a bulge is estimated from the picture, with how sure that is, and undone', async () => {
  seeing.bulge = { bulgeMm: 6.2, sideMm: 3, fromMm: 4.1, toMm: 8 };
  seeing.asked = [];
  const { user, kept } = await opened(bulging());
  await user.click(screen.getByRole('button', { name: 'Estimate the bulge' }));
  expect(await screen.findByText(/fits 6\.2 mm best, and 4\.1 mm to 8 mm nearly as well/)).toBeVisible();
  await stored();
  const [area] = kept.bodies.at(-1)!.survey.areas;
  expect(area.bulgeMm).toBe(6.2);
  // The sides, which nobody had bent, stand out with it.
  expect(area.edges!.left![4]).not.toEqual([200, 250]);
  // Asked again, the picture is asked of sides as nobody drew them: the answer does not creep.
  await user.click(screen.getByRole('button', { name: 'Estimate the bulge' }));
  await waitFor(() => expect(seeing.asked).toHaveLength(2));
  expect(seeing.asked[1].edges).toEqual(seeing.asked[0].edges);
  // What it says again changes nothing, and makes no step.
  await user.click(screen.getByRole('button', { name: 'Undo: Print areas' }));
  await waitFor(() => expect(kept.bodies.at(-1)!.survey.areas[0].bulgeMm).toBe(0), { timeout: 8000 });
});

test('a picture that shows no bulge says so, and one that cannot be read too; nothing is changed', async () => {
  seeing.bulge = null;
  const { user, kept } = await opened(bulging());
  await user.click(screen.getByRole('button', { name: 'Estimate the bulge' }));
  expect(await screen.findByText(/shows no shading that tells of a bulge/)).toBeVisible();
  seeing.edges = () => Promise.reject(new Error('The picture cannot be loaded.'));
  await user.click(screen.getByRole('button', { name: 'Draw edges to the picture' }));
  await waitFor(() =>
    expect(useNotices.getState().list.map((n) => n.text)).toContain('The picture cannot be loaded.'),
  );
  expect(kept.bodies).toEqual([]);
});

test('edges are drawn to what the picture shows beside them', async () => {
  const bent = bulging().areas[0].edges.top.map(([x, y]): [number, number] => [x, y + 7]);
  seeing.edges = (_, edges) => Promise.resolve({ ...edges, top: bent });
  const { user, kept } = await opened(bulging());
  await user.click(screen.getByRole('button', { name: 'Draw edges to the picture' }));
  await stored();
  expect(kept.bodies.at(-1)!.survey.areas[0].edges!.top).toEqual(bent);
});

test('a side view of the item says how far its face stands out, once its height is known', async () => {
  seeing.side = () => Promise.resolve({ left: 0.01, right: 0.08 });
  const { user, kept } = await opened(bulging());
  const choose = () =>
    user.upload(
      screen.getByLabelText('The item cut out, seen from its side'),
      new File(['x'], 'side.png', { type: 'image/png' }),
    );
  await choose();
  const group = within(await screen.findByRole('group', { name: 'Side view' }));
  // The area's own height is a beginning: 8 percent of 150 mm.
  expect(group.getByRole('button', { name: 'Use 12 mm' })).toBeEnabled();
  const tall = group.getByRole('textbox', { name: 'Height of the item' });
  await user.clear(tall);
  await user.type(tall, '200{Enter}');
  await user.click(group.getByRole('button', { name: 'Use 16 mm' }));
  await stored();
  expect(kept.bodies.at(-1)!.survey.areas[0].bulgeMm).toBe(16);
  seeing.side = () => Promise.reject(new Error('This picture has no transparency.'));
  await choose();
  expect(await screen.findByText(/no transparency/)).toBeVisible();
  seeing.side = () => Promise.resolve(null);
  await choose();
  expect(await screen.findByText(/no item that stands upright/)).toBeVisible();
});

test('the middle of what bulges is moved by keys, and how far it stands out follows', async () => {
  const [tl, tr, br, bl] = [
    [200, 100],
    [400, 150],
    [400, 350],
    [200, 400],
  ] as [number, number][];
  const edges = {
    top: edgeBetween(tl, tr),
    bottom: edgeBetween(bl, br),
    left: edgeBetween(tl, bl),
    right: edgeBetween(tr, br),
  };
  const turned = { ...FRONT, corners: [tl, tr, br, bl], edges };
  const { user, kept } = await opened({ ...TABLE, areas: [turned] });
  screen.getByRole('slider', { name: 'Middle of Front' }).focus();
  await user.keyboard('{Shift>}{ArrowRight}{/Shift}');
  await stored();
  const { bulgeMm } = kept.bodies.at(-1)!.survey.areas[0];
  expect(Math.abs(bulgeMm)).toBeGreaterThan(1);
  await user.keyboard('{Shift>}{ArrowLeft}{/Shift}');
  await waitFor(() => expect(Math.abs(kept.bodies.at(-1)!.survey.areas[0].bulgeMm)).toBeLessThan(0.3), {
    timeout: 8000,
  });
});

test('a size that contradicts an area’s corners is told at once', async () => {
  const corners = TABLE.plane!.corners;
  const lies = { ...FRONT, shape: 'flat' as const, corners, widthMm: 600, heightMm: 400 };
  const { user } = await opened({ ...TABLE, areas: [lies] });
  expect(screen.getByText('corners off by 0.0 px')).toBeVisible();
  const width = screen.getByRole('textbox', { name: 'Width' });
  await user.clear(width);
  await user.type(width, '300{Enter}');
  expect(screen.getByText(/Its width and height do not fit these corners/)).toBeVisible();
});

test('a rectangle of known size on the item gives the area its size, by keyboard too', async () => {
  const { user, kept } = await opened({ ...TABLE, areas: [{ ...FRONT, shape: 'flat' }] });
  await user.click(screen.getByRole('button', { name: 'Size by a known rectangle' }));
  const group = within(screen.getByRole('group', { name: 'Known rectangle' }));
  await user.clear(group.getByRole('textbox', { name: 'Its width' }));
  await user.type(group.getByRole('textbox', { name: 'Its width' }), '60{Enter}');
  await user.clear(group.getByRole('textbox', { name: 'Its height' }));
  await user.type(group.getByRole('textbox', { name: 'Its height' }), '90{Enter}');
  // It begins half as large as the area: 60 x 90 mm of it are 120 x 180 mm of the area.
  expect(group.getByRole('button', { name: 'Use 120 x 180 mm' })).toBeEnabled();
  screen.getByRole('slider', { name: 'Top right of the rectangle' }).focus();
  await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}');
  expect(group.queryByRole('button', { name: 'Use 120 x 180 mm' })).toBeNull();
  await user.keyboard('{Shift>}{ArrowLeft}{ArrowLeft}{/Shift}');
  await user.click(group.getByRole('button', { name: 'Use 120 x 180 mm' }));
  await stored();
  expect(kept.bodies.at(-1)!.survey.areas[0]).toMatchObject({ widthMm: 120, heightMm: 180 });
  expect(screen.queryByRole('group', { name: 'Known rectangle' })).toBeNull();
});

test('a corner that is dragged is drawn to a corner of the picture near it, with Alt it is not', async () => {
  seeing.corners = [{ at: [213, 106], strength: 1 }];
  const { kept } = await opened({ ...TABLE, areas: [{ ...FRONT, shape: 'flat' }] });
  const corner = screen.getByRole('slider', { name: 'Top left of Front' });
  const release = async (alt: boolean) => {
    const { length } = kept.bodies;
    // jsdom lays nothing out: a place on the screen is what it is in the picture, times its scale.
    const k = Math.min((900 - 48) / 800, (700 - 48) / 600);
    const at = { clientX: 210 * k, clientY: 104 * k, altKey: alt, bubbles: true };
    fireEvent(corner, new MouseEvent('pointerup', at));
    await waitFor(() => expect(kept.bodies.length).toBeGreaterThan(length), { timeout: 8000 });
    return kept.bodies.at(-1)!.survey.areas[0].corners[0];
  };
  expect(await release(false)).toEqual([213, 106]);
  const [x, y] = await release(true);
  expect(Math.hypot(x - 210, y - 104)).toBeLessThan(1);
});

test('the ground ends where its edge is drawn: points are added, moved and removed by keyboard, and all is undone', async () => {
  const { user, kept } = await opened();
  await user.click(screen.getByRole('button', { name: 'Draw where the ground ends' }));
  expect(screen.getAllByRole('slider', { name: /^Point \d of the edge$/ })).toHaveLength(4);
  screen.getByRole('button', { name: 'Add a point after point 2 of the edge' }).focus();
  await user.keyboard('{Enter}');
  expect(screen.getAllByRole('slider', { name: /^Point \d of the edge$/ })).toHaveLength(5);
  screen.getByRole('slider', { name: 'Point 3 of the edge' }).focus();
  await user.keyboard('{Shift>}{ArrowRight}{/Shift}');
  await stored();
  const [, second, third, fourth] = kept.bodies.at(-1)!.survey.edge!;
  expect(third[0]).toBeCloseTo((second[0] + fourth[0]) / 2 + 10, 6);
  await user.keyboard('{Delete}');
  screen.getByRole('slider', { name: 'Point 1 of the edge' }).focus();
  await user.keyboard('{Delete}');
  // Three are the fewest that enclose anything.
  await user.keyboard('{Delete}');
  expect(screen.getAllByRole('slider', { name: /^Point \d of the edge$/ })).toHaveLength(3);
  await user.click(screen.getByRole('button', { name: 'Remove the edge' }));
  expect(screen.queryByRole('slider', { name: 'Point 1 of the edge' })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Undo: Edge of the ground' }));
  expect(screen.getAllByRole('slider', { name: /^Point \d of the edge$/ })).toHaveLength(3);
});

test('the edge of the ground is found in the picture, and undone; where none is seen a sentence says so', async () => {
  const { user, kept } = await opened();
  seeing.groundEdge = () => Promise.resolve(null);
  await user.click(screen.getByRole('button', { name: 'Find the edge in the picture' }));
  await screen.findByText(/draw its edge by hand/);
  expect(screen.queryByRole('slider', { name: 'Point 1 of the edge' })).toBeNull();
  seeing.groundEdge = (_, { width }) =>
    Promise.resolve([
      [0, 300],
      [width, 310],
      [width, 600],
    ]);
  await user.click(screen.getByRole('button', { name: 'Find the edge in the picture' }));
  expect(await screen.findAllByRole('slider', { name: /^Point \d of the edge$/ })).toHaveLength(3);
  await stored();
  expect(kept.bodies.at(-1)!.survey.edge![1]).toEqual([TABLE.width, 310]);
  await user.click(screen.getByRole('button', { name: 'Undo: Edge of the ground' }));
  expect(screen.queryByRole('slider', { name: 'Point 1 of the edge' })).toBeNull();
  // Without a measured rectangle nothing says what the ground looks like.
  await user.click(screen.getByRole('radio', { name: 'Horizon and height' }));
  expect(screen.queryByRole('button', { name: 'Find the edge in the picture' })).toBeNull();
  expect(screen.getByRole('button', { name: 'Draw where the ground ends' })).toBeEnabled();
});

test('the foot of a wall is drawn and moved by keyboard, and undone', async () => {
  const { user, kept } = await opened();
  expect(section(/Shadows/)).toHaveTextContent('the ground alone');
  await user.click(section(/Shadows/));
  await user.click(screen.getByRole('button', { name: 'Draw the foot of the wall' }));
  expect(section(/Shadows/)).toHaveTextContent('wall');
  screen.getByRole('slider', { name: 'Left end of the foot of the wall' }).focus();
  await user.keyboard('{Shift>}{ArrowUp}{/Shift}');
  await stored();
  expect(kept.bodies.at(-1)!.survey.wall).toEqual([
    [120, 350],
    [680, 360],
  ]);
  await user.click(screen.getByRole('button', { name: 'Remove the wall' }));
  await stored();
  expect(kept.bodies.at(-1)!.survey.wall).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Undo: Wall' }));
  expect(screen.getByRole('slider', { name: 'Right end of the foot of the wall' })).toBeInTheDocument();
});

test('things and shade are outlined, one at a time; what is found is added to what was drawn', async () => {
  const found: [number, number][] = [
    [300, 420],
    [380, 420],
    [340, 500],
  ];
  seeing.shade = () => Promise.resolve([found]);
  const { user, kept } = await opened();
  await user.click(section(/Shadows/));
  await user.click(screen.getByRole('button', { name: 'Add a thing' }));
  await user.click(screen.getByRole('button', { name: 'Add a shade' }));
  // The one added last is the one that is dragged.
  expect(screen.queryByRole('slider', { name: 'Point 1 of thing 1' })).toBeNull();
  screen.getByRole('slider', { name: 'Point 1 of shade 1' }).focus();
  await user.keyboard('{Delete}');
  await user.click(screen.getByRole('button', { name: 'thing 1' }));
  expect(screen.getAllByRole('slider', { name: /^Point \d of thing 1$/ })).toHaveLength(4);
  await user.click(screen.getByRole('button', { name: 'Find shade in the picture' }));
  expect(await screen.findByRole('button', { name: 'shade 2' })).toBeVisible();
  expect(section(/Shadows/)).toHaveTextContent('1 thing, 2 shades');
  await stored();
  const { things, shades } = kept.bodies.at(-1)!.survey;
  expect(things).toHaveLength(1);
  expect(shades!.map((s) => s.length)).toEqual([3, 3]);
  expect(shades![1]).toEqual(found);
  await user.click(screen.getByRole('button', { name: 'Remove shade 1' }));
  await stored();
  expect(kept.bodies.at(-1)!.survey.shades).toEqual([found]);
});

test('where no shade is seen, or the picture cannot be read, a sentence says so and nothing changes', async () => {
  seeing.shade = () => Promise.resolve([]);
  const { user, kept } = await opened();
  await user.click(section(/Shadows/));
  await user.click(screen.getByRole('button', { name: 'Find shade in the picture' }));
  expect(await screen.findByText(/No shade is seen on the ground/)).toBeVisible();
  seeing.shade = () =>
    Promise.reject(new Error('The picture cannot be loaded. Reload the page and try again.'));
  await user.click(screen.getByRole('button', { name: 'Find shade in the picture' }));
  expect(await screen.findByText(/cannot be loaded/)).toBeVisible();
  expect(kept.bodies).toHaveLength(0);
});

test('the focus begins as the picture shows it, is moved by keys and typed, and taken away', async () => {
  seeing.focus = () => Promise.resolve({ sharp: [400, 500], soft: [400, 300], blurPx: 4 });
  const { user, kept } = await opened();
  expect(section(/Depth/)).toHaveTextContent('sharp and clear');
  await user.click(section(/Depth/));
  await user.click(screen.getByRole('button', { name: 'Mark the focus' }));
  const blur = await screen.findByRole('textbox', { name: /Blur at the disc/ });
  expect(blur).toHaveValue('4');
  screen.getByRole('slider', { name: 'Where it is soft' }).focus();
  await user.keyboard('{ArrowUp}');
  await user.clear(blur);
  await user.type(blur, '6.5{Enter}');
  await stored();
  expect(kept.bodies.at(-1)!.survey.focus).toEqual({ sharp: [400, 500], soft: [400, 299], blurPx: 6.5 });
  await user.click(screen.getByRole('button', { name: 'Everything is sharp' }));
  expect(section(/Depth/)).toHaveTextContent('sharp and clear');
  await user.click(screen.getByRole('button', { name: 'Undo: Focus' }));
  expect(section(/Depth/)).toHaveTextContent('focus');
});

test('where the picture shows no focus two places are a beginning; haze is marked, and without a plane there is no depth', async () => {
  seeing.focus = () => Promise.reject(new Error('no picture'));
  const { user, kept } = await opened();
  await user.click(section(/Depth/));
  await user.click(screen.getByRole('button', { name: 'Mark the focus' }));
  expect(await screen.findByRole('slider', { name: 'Where it is sharp' })).toBeInTheDocument();
  expect(screen.getByText(/shows no ground out of focus/)).toBeVisible();
  await user.click(screen.getByRole('button', { name: 'Mark the haze' }));
  const share = screen.getByRole('textbox', { name: /Haze there/ });
  await user.clear(share);
  await user.type(share, '45{Enter}');
  await stored();
  expect(kept.bodies.at(-1)!.survey.haze).toMatchObject({ share: 0.45, at: [400, 330] });
});

test('depth waits for the standing plane', async () => {
  const { user } = await opened(UNSURVEYED);
  await user.click(section(/Depth/));
  expect(screen.getByText(/measure that first/)).toBeVisible();
});
