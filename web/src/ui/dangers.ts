import type { Schemas } from '../api/client';

export type Danger = NonNullable<Schemas['OpeningRequest']['danger']>;

/** What an opening lets in, the worst first. */
export const DANGERS: Record<Danger, string> = {
  FACTORY_PASSWORD: 'A factory password',
  NO_PASSWORD: 'No password at all',
  ADMINISTRATOR: 'An administrator left signed in or awake',
  FIREWALL: 'A firewall or a port open to the outside',
  SHARED_PASSWORD: 'The same password or account for several',
  ALLOW_LIST: 'A whole subnet allowed',
  MAIL_SIGN_IN: 'A weaker mail sign-in',
  PLAIN_PAGE: 'A page without encryption',
  PASSWORD_ON_PAPER: 'A password on paper',
  PASSWORD_SPOKEN: 'A password said on the phone',
  OTHER: 'Something else',
};
