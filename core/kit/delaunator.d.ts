declare module 'delaunator' {
  /** Delaunay triangles of points given xy xy …; `triangles` names three points each. */
  export default class Delaunator {
    constructor(coords: Float64Array)
    readonly triangles: Uint32Array
  }
}
