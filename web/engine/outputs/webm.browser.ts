import { WebMOutputFormat } from 'mediabunny';
import { movie } from './movie';

export const webm = movie('vp9', 'VP9', () => new WebMOutputFormat());
