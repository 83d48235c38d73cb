import { useMemo } from 'react';
import type { SceneSurvey } from '@scenograph/core/stage/survey';
import { createDocumentStore } from '../../documents/document-store';
import { SURVEYS, type Surveyed } from '../../documents/kinds';
import { msg } from '../../language/language';

export const surveyStore = createDocumentStore<Surveyed, object>(SURVEYS, () => ({}));

/** What a step of history is called, by what it changed. */
const LABELS: Partial<Record<keyof Surveyed | keyof SceneSurvey, string>> = {
  title: msg('Title'),
  season: msg('Season'),
  palette: msg('Palette'),
  plane: msg('Standing plane'),
  horizonY: msg('Horizon'),
  known: msg('Known height'),
  light: msg('Light'),
  gloss: msg('Gloss of the ground'),
  edge: msg('Edge of the ground'),
  wall: msg('Wall'),
  things: msg('Things'),
  shades: msg('Shade'),
  focus: msg('Focus'),
  haze: msg('Haze'),
  spots: msg('Placement points'),
  occluder: msg('Foreground'),
  areas: msg('Print areas'),
  outline: msg('Outline of the item'),
  mends: msg('Remove marks'),
};

const labelOf = (value: object) => {
  const part = Object.keys(value)[0] as keyof typeof LABELS | undefined;
  return (part && LABELS[part]) ?? msg('Survey');
};

/** Changes of the survey on the screen: shown while dragging, kept as one step when finished. */
export interface SurveyEdits {
  during(value: Partial<Surveyed>): void;
  commit(value: Partial<Surveyed>): void;
  duringSurvey(value: Partial<SceneSurvey>): void;
  commitSurvey(value: Partial<SceneSurvey>): void;
}

export function useSurveyEdits(): SurveyEdits {
  return useMemo(() => {
    const { getState } = surveyStore.use;
    const all = (value: Partial<Surveyed>) => (s: Surveyed) => ({ ...s, ...value });
    const ofSurvey = (value: Partial<SceneSurvey>) => (s: Surveyed) => ({
      ...s,
      survey: { ...s.survey, ...value },
    });
    // What finishes later (a cutout taken over, a mark covered) is added to what there is then.
    const onTop =
      <V extends object>(make: (value: V) => (s: Surveyed) => Surveyed) =>
      (value: V) => {
        const { gestureBase, document, finish, edit } = getState();
        if (gestureBase && document) finish(labelOf(value), () => make(value)(document));
        else edit(labelOf(value), make(value));
      };
    return {
      during: (value) => getState().during(all(value)),
      commit: onTop(all),
      duringSurvey: (value) => getState().during(ofSurvey(value)),
      commitSurvey: onTop(ofSurvey),
    };
  }, []);
}
