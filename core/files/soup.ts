import { ConnectivityBuilder } from '../shape/builder';
import { FINISH, type Mesh } from '../shape/mesh';
import { checkCounts, FileTrouble, MOST_POINTS } from '../assets/trouble';

/** Collects points and faces of a file and checks each as it arrives. */
export class Soup {
  private readonly positions: number[] = [];
  private readonly faces: { corners: readonly number[]; uv?: readonly number[] }[] = [];

  get points(): number {
    return this.positions.length / 3;
  }

  point(x: number, y: number, z: number): void {
    if (!Number.isFinite(x) || !Number.isFinite(y) || !Number.isFinite(z))
      throw new FileTrouble(`Point ${this.points} is at ${x}, ${y}, ${z}, which is no place; export the shape again.`);
    if (Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) > 1e9)
      throw new FileTrouble(
        `Point ${this.points} is ${Math.max(Math.abs(x), Math.abs(y), Math.abs(z))} away, too far to draw; scale the shape down.`,
      );
    if (this.points >= MOST_POINTS) checkCounts(this.points + 1, 0);
    this.positions.push(x, y, z);
  }

  /** Adds a face; repeated corners are dropped, and faces of fewer than three corners. */
  face(corners: readonly number[], uv?: readonly number[]): void {
    for (const v of corners)
      if (!Number.isInteger(v) || v < 0 || v >= this.points)
        throw new FileTrouble(
          `Face ${this.faces.length} names point ${v}, but there are ${this.points} (counted from 0); export the shape again.`,
        );
    const [a, b, c] = corners;
    if (corners.length === 3 && a !== b && b !== c && c !== a) return void this.faces.push({ corners, uv });
    const kept = corners.map((_, i) => i).filter((i) => corners[i] !== corners[(i + 1) % corners.length]);
    if (new Set(kept.map((i) => corners[i])).size < 3 || new Set(kept.map((i) => corners[i])).size < kept.length)
      return;
    this.faces.push({
      corners: kept.map((i) => corners[i]),
      ...(uv ? { uv: kept.flatMap((i) => [uv[2 * i], uv[2 * i + 1]]) } : {}),
    });
  }

  finish(): Mesh {
    checkCounts(this.points, this.faces.length);
    if (this.faces.length === 0) throw new FileTrouble('The file has no faces to show; export it with its surfaces.');
    const withUv = this.faces.every((f) => f.uv && f.uv.every(Number.isFinite));
    const builder = new ConnectivityBuilder('read');
    for (const f of this.faces) builder.face(f.corners, 0, FINISH.main, withUv ? f.uv : undefined);
    return { connectivity: builder.finish(this.points), positions: Float32Array.from(this.positions) };
  }
}
