/**
 * The entry at a place that is known to be filled, from 0 on.
 *
 * @throws RangeError where nothing stands there: the caller had the wrong list or the wrong number.
 */
export function nth<T>(list: { readonly [place: number]: T; readonly length: number }, place: number): T {
  if (!(place in list)) throw new RangeError(`there is no entry ${place} among ${list.length}`)
  return list[place]
}
