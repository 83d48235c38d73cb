/** Written by `training/odds.py`; see there. */
export const ODDS_WEIGHTS = { intercept: -0.28, model: 0.725, colour: 0.194, taught: 0.179 };
