export { sessionKeys, themeFromWire, themeOnWire, useAccount, useSession, useSignOut, useWriteOwn } from "./api";
export { THEMES } from "./themes";
export { InvitationList } from "./InvitationList";
export { SignInPage } from "./SignInPage";
export { WelcomePage } from "./WelcomePage";
export { NameFields, useNames } from "./NameFields";
