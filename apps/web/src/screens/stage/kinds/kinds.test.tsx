import { describe, expect, jest, test } from '@jest/globals';
import { elementKind, elementKinds, type ShotElement } from '@scenograph/core/elements/index';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import { emptyShot, readShot } from '@scenograph/core/shot/document';
import { data, FRAME, ONE_OF_EACH } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { http, HttpResponse } from 'msw';
import { MemoryRouter } from 'react-router';
import { server } from '../../../../test/server';
import { kindUi, startOverlay, STARTERS } from './index';

const kit = { ...EMPTY_KIT, colours: [{ id: 'moss', title: 'Moss', colour: '#345544' }] };
const shot = (element: ShotElement) => ({
  ...emptyShot(FRAME.width, FRAME.height),
  elements: [
    ONE_OF_EACH[0],
    ONE_OF_EACH[1],
    ...(['backdrop', 'product'].includes(element.kind) ? [] : [element]),
  ],
});

/** What a desk asks the server for while it is shown. */
const empty = () =>
  server.use(
    ...['scenes', 'pictures', 'artwork', 'fonts', 'templates', 'effects'].map((what) =>
      http.get(`/api/${what}`, () => HttpResponse.json([])),
    ),
    http.get('/api/brand', () => HttpResponse.json({ kit, revision: 1, steps: 0 })),
  );

/** The kind's overlay desk with an element in it, and what it says. */
function showDesk(element: ShotElement) {
  empty();
  const Desk = kindUi(element).Overlay!;
  const during = jest.fn<(patch: Partial<ShotElement>) => void>();
  const commit = jest.fn<(label: string, patch: Partial<ShotElement>) => void>();
  const resolved = resolveBase(shot(element), data);
  render(
    <MemoryRouter>
      <Desk
        element={element}
        placed={element.box}
        elements={resolved.elements}
        frame={FRAME}
        during={during}
        commit={commit}
      />
    </MemoryRouter>,
  );
  return { during, commit };
}

const OVERLAYS = ONE_OF_EACH.filter((e) => kindUi(e).Overlay);

test('every kind shows something, and every overlay but a picture has a desk', () => {
  for (const { kind, role } of elementKinds()) {
    const ui = kindUi(ONE_OF_EACH.find((e) => e.kind === kind)!);
    expect({ kind, resize: ui.resize }).toEqual({
      kind,
      resize: expect.stringMatching(/free|sides|corners|not/),
    });
    expect({ kind, desk: !!ui.Overlay }).toEqual({ kind, desk: role === 'overlay' && kind !== 'picture' });
  }
});

describe('starters', () => {
  const all = STARTERS.flatMap((g) => g.choices);

  test('stand in their groups, each under a name and an id of its own', () => {
    expect(STARTERS.every((g) => g.choices.length > 0)).toBe(true);
    expect(new Set(all.map((s) => s.id)).size).toBe(all.length);
    expect(new Set(all.map((s) => s.title)).size).toBe(all.length);
  });

  test.each(all.map((s) => [s.title, s] as const))(
    '%s: makes an overlay that a shot takes, inside the frame',
    (_, starter) => {
      const made = startOverlay(starter, 'new', FRAME, kit);
      expect(elementKind(made.kind).role).toBe('overlay');
      expect(kindUi(made).starters).toContain(starter);
      const whole = { ...emptyShot(FRAME.width, FRAME.height), elements: [made] };
      expect(readShot(JSON.parse(JSON.stringify(whole))).elements).toEqual([made]);
      expect(made.box.x).toBeGreaterThanOrEqual(0);
      expect(made.box.x + made.box.width).toBeLessThanOrEqual(FRAME.width);
    },
  );
});

describe.each(OVERLAYS.map((e) => [e.kind, e] as const))('the desk of a %s', (_, element) => {
  test('has controls, each with a name', async () => {
    showDesk(element);
    const controls = [
      ...screen.queryAllByRole('textbox'),
      ...screen.queryAllByRole('spinbutton'),
      ...screen.queryAllByRole('combobox'),
      ...screen.queryAllByRole('slider'),
      ...screen.queryAllByRole('switch'),
      ...screen.queryAllByRole('button'),
      ...screen.queryAllByRole('radio'),
    ];
    expect(controls.length).toBeGreaterThan(1);
    for (const control of controls) expect(control).toHaveAccessibleName();
  });

  test('commits only what a shot takes, and names the step', async () => {
    const { commit } = showDesk(element);
    const user = userEvent.setup();
    for (const control of [...screen.queryAllByRole('switch'), ...screen.queryAllByRole('radio')].slice(0, 4))
      await user.click(control);
    for (const field of screen.queryAllByRole('textbox').slice(0, 4)) {
      await user.clear(field);
      await user.type(field, '12{Enter}');
    }
    expect(commit).toHaveBeenCalled();
    for (const [label, patch] of commit.mock.calls) {
      expect(label).toMatch(/^[A-Z]/);
      const changed = { ...shot(element), elements: [{ ...element, ...patch }] };
      expect(() => readShot(JSON.parse(JSON.stringify(changed)))).not.toThrow();
    }
  });
});

test('an element of a kind that this version does not know is shown as such, and nothing of it can be changed by mistake', () => {
  const foreign = {
    ...ONE_OF_EACH[3],
    kind: 'hologram',
    name: 'Hologram',
    depthMm: 12,
  } as never as ShotElement;
  const { commit, during } = showDesk(foreign);
  expect(screen.getByText(/this version of Scenograph does not know/)).toHaveTextContent('“Hologram”');
  expect(screen.queryAllByRole('textbox')).toEqual([]);
  expect(kindUi(foreign).resize).toBe('not');
  expect([commit, during].every((f) => f.mock.calls.length === 0)).toBe(true);
});
