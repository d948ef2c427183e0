import type { CheckCode } from '../diagnose/said';

/** What a look has shown, as it is ticked and as it stands in a story. */
export const CHECK_WORDS: Readonly<Record<CheckCode, string>> = {
  backup: 'no backup runs on it',
  update: 'no update is being fetched on it',
  'photo-upload': 'no photos or files are being sent up from it',
  'own-tunnel': 'its own tunnel is off',
  'others-idle': 'nobody else loads the line',
};
