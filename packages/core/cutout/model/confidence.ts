/** Written by `training/calibrate.py`; see there. */
export const CONFIDENCE = {
  intercept: -6.9524,
  weights: {
    looksDiffer: 0.0,
    outlineDiffers: 0.0,
    doubt: 0.0,
    doubtOffEdge: 0.0,
    faintEdge: -0.2372,
    onBorder: 0.0,
    small: 0.0,
    parts: -0.1874,
    likelyWrong: -1.4354,
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
      0.0, 0.0013, 0.1324, 0.1522, 0.1843, 0.188, 0.2397, 0.247, 0.3303, 0.331, 0.375, 0.3752, 0.4257, 0.4262,
      0.4476, 0.448, 0.5662, 0.5686, 0.6405, 0.6459, 0.7044, 0.7048, 0.7791, 0.7814, 0.8191, 0.8192, 0.9224,
      1.0,
    ],
    to: [
      0.0556, 0.0556, 0.0556, 0.1364, 0.1364, 0.1944, 0.1944, 0.3167, 0.3167, 0.4167, 0.4167, 0.425, 0.425,
      0.5, 0.5, 0.5147, 0.5147, 0.575, 0.575, 0.6579, 0.6579, 0.7414, 0.7414, 0.7727, 0.7727, 0.8958, 0.8958,
      0.8958,
    ],
  },
};
