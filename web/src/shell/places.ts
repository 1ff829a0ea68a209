/** The views of the workbench. */
export const PLACES = [
  'rules',
  'findings',
  'checks',
  'reach',
  'publish',
  'traffic',
  'library',
  'feeds',
  'people',
  'applications',
  'signatures',
  'history',
  'accounts',
  'audit',
] as const;

export type Place = (typeof PLACES)[number];

/** The places for admins only. */
export const ADMIN: Place[] = ['accounts', 'audit'];

/** The places that the library has tabs for. */
export const LIBRARY: Place[] = ['library', 'feeds', 'people', 'applications', 'signatures'];
