import { EDGE_PRESETS } from '@scenograph/core/cutout/edge-profile';
import { BADGE_FORMS, CORNERS } from '@scenograph/core/elements/badge/forms';
import { LENS_SHAPES } from '@scenograph/core/elements/inset/model';
import { PANELS, SHAPE_FORMS } from '@scenograph/core/elements/shape/model';
import { LEADERS } from '@scenograph/core/elements/spot';
import { STEP_TITLES } from '@scenograph/core/recipe/recipe';
import { CHECK_TITLES } from '@scenograph/core/spec/checks/index';
import { MATERIALS as TABLES } from '@scenograph/core/stage/materials';
import { INK } from '@scenograph/core/surface/material';
import { PURPOSES, SEASONS } from '@scenograph/core/templates/template';
import { DECORATIONS } from '@scenograph/core/vector/decorations';
import { capitalised } from '../src/ui/capitalised';

/** Names that the core gives to what can be chosen; the web shows them through `msg` too. */
export function textsOfCore(): string[] {
  const names = [
    BADGE_FORMS,
    CORNERS,
    SHAPE_FORMS,
    PANELS,
    LENS_SHAPES,
    LEADERS,
    DECORATIONS,
    SEASONS,
    TABLES,
  ];
  return [
    ...names.flatMap((list: readonly string[]) => list.map((name) => capitalised(name.replace('-', ' ')))),
    ...PURPOSES.map(capitalised),
    ...CHECK_TITLES.map((check) => check.title),
    ...Object.values(STEP_TITLES),
    ...EDGE_PRESETS.map((preset) => preset.title),
    ...Object.values(INK).map((ink) => ink.title),
    ...['looks right', 'look at it', 'needs a hand'],
  ];
}
