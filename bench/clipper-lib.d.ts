declare module 'clipper-lib' {
  type Point = { X: number; Y: number };
  type Paths = Point[][];
  const ClipperLib: {
    Clipper: {
      new (): {
        AddPaths(paths: Paths, kind: number, closed: boolean): boolean;
        Execute(operation: number, solution: Paths, subjectFill: number, clipFill: number): boolean;
      };
      Area(path: Point[]): number;
    };
    ClipperOffset: new (
      miterLimit: number,
      arcTolerance: number,
    ) => {
      AddPath(path: Point[], join: number, end: number): void;
      Execute(solution: Paths, delta: number): void;
    };
    Paths: new () => Paths;
    ClipType: { ctIntersection: number; ctUnion: number; ctDifference: number };
    PolyType: { ptSubject: number; ptClip: number };
    PolyFillType: { pftNonZero: number };
    JoinType: { jtMiter: number; jtRound: number };
    EndType: { etClosedPolygon: number };
  };
  export default ClipperLib;
}
