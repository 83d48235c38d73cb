/** Written by `training/calibrate.py`; see there. */
export const CONFIDENCE = {
  intercept: -8.4,
  weights: {
    looksDiffer: 0.0,
    outlineDiffers: -0.1917,
    doubt: 0.0,
    doubtOffEdge: 0.0,
    faintEdge: -0.2804,
    onBorder: -0.081,
    small: 0.0,
    parts: 0.0,
    likelyWrong: -1.5926,
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
      0.0, 0.016, 0.024, 0.0277, 0.0711, 0.073, 0.2894, 0.2915, 0.3185, 0.3215, 0.3373, 0.3475, 0.4497,
      0.4522, 0.577, 0.5875, 0.6136, 0.6188, 0.7344, 0.7355, 0.7543, 0.7568, 0.7909, 0.7941, 0.9033, 0.9145,
      0.9182, 1.0,
    ],
    to: [
      0.1, 0.1, 0.1, 0.1, 0.1, 0.1571, 0.1571, 0.2083, 0.2083, 0.3, 0.3, 0.3947, 0.3947, 0.5417, 0.5417, 0.55,
      0.55, 0.6282, 0.6282, 0.7917, 0.7917, 0.8478, 0.8478, 0.869, 0.869, 0.869, 0.869, 0.869,
    ],
  },
};
