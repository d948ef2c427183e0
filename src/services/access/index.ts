export { makeApiToken, revokeApiToken } from './api-tokens';
export { firstJoinCode, renewEndedCodes, renewJoinCode } from './join-codes';
export { maySeeRun, roleOf, type Proofs, type Role } from './role';
export {
  hasPassphrase,
  isWelcome,
  setFirstPassphrase,
  SIGN_IN_COOKIE,
  SIGN_IN_COOKIE_SECONDS,
  signIn,
  signOut,
  technicianOf,
  welcomeToken,
  type Technician,
} from './sign-in';
