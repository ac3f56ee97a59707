import { Mp4OutputFormat } from 'mediabunny';
import { movie } from './movie';

export const mp4 = movie('avc', 'H.264', () => new Mp4OutputFormat({ fastStart: 'in-memory' }));
