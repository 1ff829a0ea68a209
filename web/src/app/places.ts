/** What the rail and the library's tabs lead to. */
export type Place =
  'rules' | 'library' | 'people' | 'applications' | 'signatures' | 'history' | 'accounts';

/** The places that the library has tabs for. */
export const LIBRARY: Place[] = ['library', 'people', 'applications', 'signatures'];
