import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import { clipOf, withClip } from '@scenograph/core/shot/clip';
import type { Shot } from '@scenograph/core/shot/document';
import { addElement, moveDepth, removeElement } from './editing';
import { useStage } from './store';
import { msg } from '../../language/language';

/** What is done to the chosen elements of the base, each as one step of history. */

const state = () => useStage.getState();

/** Adds an element in front and chooses it. */
export function add(make: (shot: Shot) => ShotElement): ShotElement {
  const made = make(state().document!);
  state().edit(msg('Add {made}', { made: made.name }), (s) => addElement(s, made));
  state().select(made.id);
  return made;
}

/** Removes what is chosen and not locked. */
export function remove(): void {
  const { selected, also, document: shot } = state();
  const chosen = [selected, ...also];
  const gone = shot?.elements.filter((e) => chosen.includes(e.id) && !e.locked) ?? [];
  if (!gone.length) return;
  const what =
    gone.length === 1
      ? gone[0].name
      : msg('{gone, plural, one {# element} other {# elements}}', { gone: gone.length });
  state().edit(msg('Remove {what}', { what }), (s) =>
    gone.reduce((left, { id }) => removeElement(left, id), s),
  );
  state().select(null);
}

/** How far aside a copy is put, as shares of the frame. */
const ASIDE = { x: 0.06, y: 0.02 };

/** A copy before each chosen element, a little aside, and chosen; in every slot it looks as its original does there. */
export function duplicate(): void {
  const { document: shot } = state();
  const clip = copied();
  if (!shot || !clip) return;
  const made = withClip(shot, clip, ASIDE);
  const names =
    clip.elements.length === 1
      ? clip.elements[0].name
      : msg('{elements, plural, one {# element} other {# elements}}', { elements: clip.elements.length });
  state().edit(msg('Duplicate {names}', { names }), () =>
    made.ids.reduce(
      (s, id, i) => moveDepth(s, id, s.elements.findIndex((e) => e.id === clip.elements[i].id) + 1),
      made.shot,
    ),
  );
  choose(made.ids);
}

/** The chosen elements, to be put into another shot; null where none is chosen. */
export function copied(): Shot | null {
  const { selected, also, document: shot } = state();
  const clip = shot && clipOf(shot, [selected ?? '', ...also]);
  return clip?.elements.length ? clip : null;
}

/** Puts what was copied in front and chooses it: aside where it came from this shot and is in it still, else in its place. */
export function paste(clip: Shot): void {
  const shot = state().document!;
  const beside = clip.elements.some((e) =>
    shot.elements.some((own) => own.id === e.id && own.name === e.name),
  );
  const made = withClip(shot, clip, beside ? ASIDE : { x: 0, y: 0 });
  state().edit(
    msg('Paste {elements}', { elements: clip.elements.map((e) => e.name).join(', ') }).slice(0, 80),
    () => made.shot,
  );
  choose(made.ids);
}

function choose([first, ...more]: string[]): void {
  state().select(first ?? null);
  more.forEach((id) => state().choose(id));
}

/** Moves the chosen element by so many places to the front. */
export function depth(by: number): void {
  const { selected: id, document: shot } = state();
  if (!id || !shot) return;
  const from = shot.elements.findIndex((e) => e.id === id);
  state().edit(by > 0 ? msg('Bring forward') : msg('Send back'), (s) => moveDepth(s, id, from + by));
}

/** Links the chosen elements, so that they move together; or lets all of their group go. */
export function link(on: boolean): void {
  const { selected, also } = state();
  if (!selected) return;
  const ids = new Set([selected, ...also]);
  state().edit(on ? msg('Link') : msg('Unlink'), (s) => {
    const group = s.elements.find((e) => e.id === selected)?.link;
    const linked = (e: ShotElement) => {
      if (on) return ids.has(e.id) && !isGround(e) ? `link-${selected}` : e.link;
      return ids.has(e.id) || (group && e.link === group) ? null : e.link;
    };
    return { ...s, elements: s.elements.map((e) => ({ ...e, link: linked(e) })) };
  });
}
