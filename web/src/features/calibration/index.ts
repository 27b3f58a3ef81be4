export { myCalibrations } from "./api";
export { CalibrateFirst } from "./CalibrateFirst";
export { CalibrationsThatWait } from "./CalibrationsThatWait";
