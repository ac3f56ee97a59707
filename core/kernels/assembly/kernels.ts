// Kernels in AssemblyScript, compiled to WebAssembly with SIMD by `npm run kernels`. Addresses are in
// bytes; nothing is allocated here. The plain TypeScript beside each caller is the reference.
export { gradient } from './gradient';
export { cellular, cellularSecond } from './cellular';
export { curl } from './curl';
export { finish } from './finish';
export { product, averages, fours, smooth, normals } from './mesh';
export { centres, placed, shifted, sized, turned, coloured } from './copies';
