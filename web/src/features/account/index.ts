export { sessionKeys, themeFromWire, themeOnWire, useAccount, useSession, useSignOut, useWriteOwn } from "./api";
export { THEMES } from "./themes";
export { InvitationList } from "./InvitationList";
export { AddressPage } from "./AddressPage";
export { mailOn } from "./api";
export { LostPasswordPage } from "./LostPasswordPage";
export { SignInPage } from "./SignInPage";
export { WelcomePage } from "./WelcomePage";
export { NameFields, useNames } from "./NameFields";
