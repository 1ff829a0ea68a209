/** The views of the workbench. */
export type Place =
  | 'rules'
  | 'checks'
  | 'library'
  | 'feeds'
  | 'people'
  | 'applications'
  | 'signatures'
  | 'history'
  | 'accounts';

/** Their names in commands. */
export const PLACE_NAMES: Record<Place, string> = {
  rules: 'rules',
  checks: 'checks',
  library: 'library',
  feeds: 'feeds',
  people: 'people',
  applications: 'applications',
  signatures: 'signatures',
  history: 'history',
  accounts: 'accounts',
};

/** The places that the library has tabs for. */
export const LIBRARY: Place[] = ['library', 'feeds', 'people', 'applications', 'signatures'];
