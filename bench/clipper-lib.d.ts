declare module 'clipper-lib' {
  const ClipperLib: {
    ClipperOffset: new (
      miterLimit: number,
      arcTolerance: number,
    ) => {
      AddPath(path: { X: number; Y: number }[], join: number, end: number): void;
      Execute(solution: unknown, delta: number): void;
    };
    Paths: new () => unknown;
    JoinType: { jtMiter: number };
    EndType: { etClosedPolygon: number };
  };
  export default ClipperLib;
}
