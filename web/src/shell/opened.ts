/** The dialog that is open over the workbench. */
export type Opened = 'palette' | 'keys' | 'import' | 'export' | 'breadth' | 'common' | null;
