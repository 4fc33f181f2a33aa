export * from './types'
export { pack, type PackOptions } from './pack'
export { lengthBound } from './bound'
export { nest, type Lie, type NestPlaced, type NestShape } from './nest'
