declare const names: unique symbol
/** A number that stands for one thing among its like: passed where another kind is meant, it does not compile. */
type IdOf<Kind extends string> = number & { readonly [names]: Kind }

/** An atom, by its place in {@link Circuit.atoms}. */
export type AtomId = IdOf<'atom'>
/** An edge, by its place in {@link Circuit.edges}. */
export type EdgeId = IdOf<'edge'>
/** A net: the least of the atoms that are joined just now. */
export type NetId = IdOf<'net'>

/** The net of each atom. */
export type NetOfAtom = Int32Array & { [atom: AtomId]: NetId }
