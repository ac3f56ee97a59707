import { Blocks, Box as BoxIcon, Boxes, CircleDashed, CircleDot, Combine, Cone, Cylinder, Dices, Disc, Droplets, Expand, Flower2, Globe, Grid3x3, Hexagon, Infinity as Cord, Layers2, Magnet, Medal, Move3d, Network, Orbit, Pill, Route, Shell, Shrink, Sparkles, Split, Square, SunDim, Tornado, Torus, Triangle, Waves, Waypoints, type LucideIcon } from 'lucide-react';

/** Pictures for the icon names that steps declare. */
const icons: Readonly<Record<string, LucideIcon>> = {
  torus: Torus,
  sphere: Globe,
  cone: Cone,
  capsule: Pill,
  disc: Disc,
  platonic: Hexagon,
  medal: Medal,
  cord: Cord,
  minimal: Network,
  drops: Droplets,
  bend: Waypoints,
  taper: Triangle,
  shear: Blocks,
  ripple: CircleDot,
  inflate: Expand,
  spherify: Shrink,
  jitter: CircleDashed,
  push: Magnet,
  shell: Shell,
  struts: Boxes,
  'thin-out': Split,
  burst: Combine,
  nest: Layers2,
  mirror: Split,
  symmetry: Flower2,
  shade: SunDim,
  geodesic: Globe,
  box: BoxIcon,
  cylinder: Cylinder,
  plane: Square,
  subdivide: Grid3x3,
  smooth: Sparkles,
  displace: Waves,
  twist: Tornado,
  place: Move3d,
  spin: Orbit,
  tumble: Dices,
  journey: Route,
};

export function StepIcon({ name, size = 15 }: { name: string; size?: number }) {
  const Icon = icons[name] ?? Square;
  return <Icon size={size} strokeWidth={1.9} aria-hidden="true" />;
}
