export { makeApiToken, revokeApiToken, scopeAllows } from './api-tokens';
export { firstJoinCode, renewEndedCodes, renewJoinCode } from './join-codes';
export { passphraseToken, RESET_MS, technicianOfLink } from './passphrase-links';
export { maySeeRun, roleOf, type Proofs, type Role, type Technician } from './role';
export {
  endSignIns,
  endSignInsOf,
  forgetOldSignIns,
  hasTechnicians,
  SIGN_IN_COOKIE,
  SIGN_IN_COOKIE_SECONDS,
  signIn,
  signInStands,
  signOut,
  type SignInPlace,
} from './sign-in';
export {
  addTechnician,
  changePassphrase,
  isWelcome,
  makeFirstTechnician,
  removeTechnician,
  renewPassphraseLink,
  setFirstPassphrase,
  setKeeper,
  setPassphraseByLink,
  welcomeToken,
  type PassphraseLink,
} from './technicians';
export { cookieOfDevice, DEVICE_COOKIE, DEVICE_COOKIE_SECONDS, deviceCookieValue } from './device-cookie';
export { HERE_COOKIE, HERE_COOKIE_SECONDS, hereToken, openHere } from './here-link';
export type { Visitor } from './visitor';
