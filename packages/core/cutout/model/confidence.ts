/** Written by `training/calibrate.py`; see there. */
export const CONFIDENCE = {
  intercept: -7.6827,
  weights: {
    looksDiffer: 0.0,
    outlineDiffers: -0.2554,
    doubt: 0.0,
    doubtOffEdge: 0.0,
    faintEdge: -0.1866,
    onBorder: -0.0082,
    small: 0.0,
    parts: 0.0,
    likelyWrong: -1.5138,
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
      0.0, 0.0139, 0.015, 0.0159, 0.0957, 0.1018, 0.2823, 0.2832, 0.4072, 0.4095, 0.4344, 0.4355, 0.4905,
      0.4933, 0.6553, 0.6555, 0.6773, 0.6867, 0.7082, 0.7096, 0.7513, 0.7546, 0.7674, 0.7683, 0.8385, 0.8387,
      0.8623, 0.87, 0.9065, 0.9175, 0.9175, 1.0,
    ],
    to: [
      0.1667, 0.1667, 0.1667, 0.1667, 0.1667, 0.1667, 0.1667, 0.25, 0.25, 0.4091, 0.4091, 0.4333, 0.4333,
      0.6071, 0.6071, 0.625, 0.625, 0.65, 0.65, 0.6765, 0.6765, 0.6818, 0.6818, 0.875, 0.875, 0.8846, 0.8846,
      0.89, 0.89, 0.89, 0.89, 0.89,
    ],
  },
};
