import { createContext, useContext } from 'react'

/** Whether the browser is on the way to another address just now; asked, not rendered: a screen learns of it a moment later. */
export const OnTheWay = createContext<() => boolean>(() => false)

export const useOnTheWay = (): (() => boolean) => useContext(OnTheWay)
