/** Is this an address of the API, however it is written? The router knows no capitals either. */
export const isApi = (path: string): boolean => /^\/api(\/|$)/i.test(path)
