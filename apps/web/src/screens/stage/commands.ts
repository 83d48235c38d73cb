import { isGround, type ShotElement } from '@scenograph/core/elements/index';
import type { Shot } from '@scenograph/core/shot/document';
import { copyFits } from '@scenograph/core/shot/edit';
import { addElement, moveDepth, newId, removeElement } from './editing';
import { useStage } from './store';

/** What is done to the chosen elements of the base, each as one step of history. */

const state = () => useStage.getState();

/** Adds an element in front and chooses it. */
export function add(make: (shot: Shot) => ShotElement): ShotElement {
  const made = make(state().document!);
  state().edit(`Add ${made.name}`, (s) => addElement(s, made));
  state().select(made.id);
  return made;
}

export function remove(): void {
  const { selected: id, document: shot } = state();
  const gone = shot?.elements.find((e) => e.id === id);
  if (!gone || gone.locked) return;
  state().edit(`Remove ${gone.name}`, (s) => removeElement(s, gone.id));
  state().select(null);
}

/** How far aside a copy is put, as shares of the frame. */
const ASIDE = { x: 0.06, y: 0.02 };

/** A copy before the chosen element, a little aside, and chosen; in every slot it looks as its original does there. */
export function duplicate(): void {
  const { selected: id, document: shot } = state();
  const from = shot?.elements.find((e) => e.id === id);
  if (!shot || !from || isGround(from)) return;
  const { width, height } = shot.frame;
  const at = { x: from.box.x + ASIDE.x * width, y: from.box.y + ASIDE.y * height };
  const copy = {
    ...from,
    id: newId(from.kind, shot),
    name: `${from.name}, copy`,
    locked: false,
    link: null,
    box: { ...from.box, ...at },
  } as ShotElement;
  state().edit(`Duplicate ${from.name}`, (s) => {
    const added = copyFits(addElement(s, copy), from.id, copy.id, ASIDE);
    return moveDepth(added, copy.id, s.elements.findIndex((e) => e.id === id) + 1);
  });
  state().select(copy.id);
}

/** Moves the chosen element by so many places to the front. */
export function depth(by: number): void {
  const { selected: id, document: shot } = state();
  if (!id || !shot) return;
  const from = shot.elements.findIndex((e) => e.id === id);
  state().edit(by > 0 ? 'Bring forward' : 'Send back', (s) => moveDepth(s, id, from + by));
}

/** Links the chosen elements, so that they move together; or lets all of their group go. */
export function link(on: boolean): void {
  const { selected, also } = state();
  if (!selected) return;
  const ids = new Set([selected, ...also]);
  state().edit(on ? 'Link' : 'Unlink', (s) => {
    const group = s.elements.find((e) => e.id === selected)?.link;
    const linked = (e: ShotElement) => {
      if (on) return ids.has(e.id) && !isGround(e) ? `link-${selected}` : e.link;
      return ids.has(e.id) || (group && e.link === group) ? null : e.link;
    };
    return { ...s, elements: s.elements.map((e) => ({ ...e, link: linked(e) })) };
  });
}
