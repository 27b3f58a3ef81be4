export { answersOfStudy } from "./api";
