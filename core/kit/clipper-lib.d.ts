/** What we use of the polygon clipper: integer points, offsets and booleans. */
declare module 'clipper-lib' {
  export interface IntPoint {
    X: number
    Y: number
  }
  export type Path = IntPoint[]
  export class Clipper {
    AddPath(path: Path, type: number, closed: boolean): boolean
    Execute(operation: number, solution: Path[], subject?: number, clip?: number): boolean
    static Area(path: Path): number
    static CleanPolygon(path: Path, distance?: number): Path
  }
  export class ClipperOffset {
    constructor(miterLimit?: number, arcTolerance?: number)
    AddPath(path: Path, join: number, end: number): void
    Execute(solution: Path[], delta: number): void
  }
  const lib: {
    Clipper: typeof Clipper
    ClipperOffset: typeof ClipperOffset
    PolyType: { ptSubject: number; ptClip: number }
    ClipType: { ctIntersection: number; ctUnion: number; ctDifference: number }
    PolyFillType: { pftNonZero: number }
    JoinType: { jtMiter: number; jtRound: number; jtSquare: number }
    EndType: { etClosedPolygon: number }
  }
  export default lib
}
