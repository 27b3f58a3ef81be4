export { AskedFor } from "./AskedFor";
export {
  myStudies,
  peopleOfStudy,
  studyKeys,
  useAddRater,
  useBeginStudy,
  useRemoveRater,
  useStepsChanged,
  useStudyChanged,
  askedFor,
} from "./api";
export { DeletedStudies } from "./DeletedStudies";
export { NewPerson } from "./NewPerson";
export { ExpectationForm } from "./ExpectationForm";
export { ForecastWords } from "./ForecastWords";
export { Reopenings } from "./Reopenings";
export { COEFFICIENTS, RuleTermsList, TIE_BREAKS } from "./RuleTermsList";
export { SetAsideNote } from "./SetAsideNote";
export { StudyList } from "./StudyList";
export { useStudy, useStudyId } from "./useStudy";
