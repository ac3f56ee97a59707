declare module 'fastnoise-lite' {
  /** Only what the benchmark calls. */
  export default class FastNoiseLite {
    static NoiseType: Record<'Perlin' | 'Cellular', string>;
    static CellularDistanceFunction: Record<'Euclidean', string>;
    static CellularReturnType: Record<'Distance', string>;
    constructor(seed?: number);
    SetFrequency(frequency: number): void;
    SetNoiseType(type: string): void;
    SetCellularDistanceFunction(kind: string): void;
    SetCellularReturnType(kind: string): void;
    GetNoise(x: number, y: number, z?: number): number;
  }
}
