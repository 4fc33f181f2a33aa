export * from './model/types'
export { pack, type PackOptions } from './bins/pack'
export { lengthBound } from './bound/bound'
export { nest, type Lie, type NestPlaced, type NestShape } from './outlines/nest'
