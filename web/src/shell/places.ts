/** What the rail and the library's tabs lead to. */
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

/** The places that the library has tabs for. */
export const LIBRARY: Place[] = ['library', 'feeds', 'people', 'applications', 'signatures'];
