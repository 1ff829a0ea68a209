import { createContext } from 'react';
import type { Draft } from '../api/types';

/** The draft that is on screen, for what stands deep below the page. */
export const DraftContext = createContext<Draft | null>(null);
