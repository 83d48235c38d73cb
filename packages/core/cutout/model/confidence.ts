/** Written by `training/calibrate.py`; see there. */
export const CONFIDENCE = {
  intercept: -14.4228,
  weights: {
    looksDiffer: 0.0,
    outlineDiffers: -0.2176,
    doubt: -1.0555,
    doubtOffEdge: 0.0,
    faintEdge: -0.8666,
    onBorder: -2.6208,
    small: 0.0,
    parts: -0.0086,
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
  },
  calibration: {
    from: [
      0.0, 0.0, 0.091, 0.094, 0.2191, 0.225, 0.2408, 0.2569, 0.3267, 0.3499, 0.4942, 0.495, 0.547, 0.549,
      0.6897, 0.6912, 0.9069, 0.9082, 0.9082, 1.0,
    ],
    to: [
      0.05, 0.05, 0.05, 0.0882, 0.0882, 0.25, 0.25, 0.4091, 0.4091, 0.4107, 0.4107, 0.5909, 0.5909, 0.6944,
      0.6944, 0.7708, 0.7708, 0.7708, 0.7708, 0.7708,
    ],
  },
};
