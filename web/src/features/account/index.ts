export { sessionKeys, useAccount, useSession, useSignOut } from "./api";
export { InvitationList } from "./InvitationList";
export { SignInPage } from "./SignInPage";
export { WelcomePage } from "./WelcomePage";
