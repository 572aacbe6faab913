import { createContext, useContext } from 'react';

const Came = createContext(false);

/** Whether the page that is shown was come to from another one here, and is not the first of the visit. */
export const CameFromHere = Came.Provider;
export const useCame = (): boolean => useContext(Came);
