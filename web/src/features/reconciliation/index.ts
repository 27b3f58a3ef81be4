export { mySplits, splitsOfStudy, useTakeUp } from "./api";
export { type Given, GivenLevels } from "./GivenLevels";
export { LevelChoice } from "./LevelChoice";
export { SaidByRaters } from "./SaidByRaters";
export { SayForm } from "./SayForm";
export { SplitStateWords } from "./SplitStateWords";
export { SplitsThatWait } from "./SplitsThatWait";
export { type Entry, TalkList } from "./TalkList";
export { TakeUpWidest } from "./TakeUpWidest";
