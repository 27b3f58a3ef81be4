export { CalibrateFirst } from "./CalibrateFirst";
export { CalibrationsThatWait } from "./CalibrationsThatWait";
