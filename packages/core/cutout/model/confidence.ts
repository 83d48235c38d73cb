/** Written by `training/calibrate.py`; see there. */
export const CONFIDENCE = {
  intercept: -7.9618,
  weights: {
    looksDiffer: 0.0,
    outlineDiffers: -0.1727,
    doubt: 0.0,
    doubtOffEdge: 0.0,
    faintEdge: -0.5017,
    onBorder: -0.2247,
    small: 0.0,
    parts: 0.0,
    likelyWrong: -1.1851,
  },
  floors: {
    looksDiffer: 0.02,
    outlineDiffers: 0.004,
    doubt: 0.02,
    doubtOffEdge: 0.004,
    faintEdge: 0.02,
    onBorder: 0.02,
    small: 0.2,
    parts: 0.2,
    likelyWrong: 0.001,
  },
  calibration: {
    from: [
      0.0, 0.0015, 0.1666, 0.1743, 0.2683, 0.2775, 0.2848, 0.2977, 0.4148, 0.4224, 0.6645, 0.6657, 0.6837,
      0.6891, 0.7592, 0.7601, 0.8933, 0.8934, 0.8934, 1.0,
    ],
    to: [
      0.0789, 0.0789, 0.0789, 0.3095, 0.3095, 0.375, 0.375, 0.4091, 0.4091, 0.4808, 0.4808, 0.5833, 0.5833,
      0.7812, 0.7812, 0.8382, 0.8382, 0.8382, 0.8382, 0.8382,
    ],
  },
};
