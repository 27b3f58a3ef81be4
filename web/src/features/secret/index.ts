export { secretsOfStudy } from "./api";
export { SecretsFound } from "./SecretsFound";
