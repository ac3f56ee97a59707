import { Box as BoxIcon, Cylinder, Dices, Globe, Grid3x3, Move3d, Orbit, Route, Sparkles, Square, Torus, Tornado, Waves, type LucideIcon } from 'lucide-react';

/** Pictures for the icon names that steps declare. */
const icons: Readonly<Record<string, LucideIcon>> = {
  torus: Torus,
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
