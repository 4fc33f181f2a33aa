export * from './types'
export { pack, type PackOptions } from './pack'
export { lengthBound } from './bound'
