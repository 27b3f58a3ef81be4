export { splitsOfStudy, useTakeUp } from "./api";
export { SplitStateWords } from "./SplitStateWords";
export { SplitsThatWait } from "./SplitsThatWait";
export { TakeUpWidest } from "./TakeUpWidest";
