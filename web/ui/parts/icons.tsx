import {
  Anchor,
  Axis3d,
  Bolt,
  Blocks,
  Box as BoxIcon,
  Boxes,
  CircleDashed,
  CircleDot,
  Combine,
  Cone,
  Cylinder,
  Dices,
  Disc,
  Droplets,
  Expand,
  Flower2,
  GalleryHorizontalEnd,
  Globe,
  Image as ImageIcon,
  Layers,
  Grid3x3,
  Hexagon,
  Infinity as Cord,
  Layers2,
  Magnet,
  Medal,
  Move3d,
  Network,
  Orbit,
  Pill,
  Route,
  Shell,
  Shrink,
  Sparkles,
  Split,
  Square,
  SunDim,
  Tornado,
  Torus,
  Triangle,
  Waves,
  Waypoints,
  Cable,
  FileBox,
  ChevronsDownUp,
  Diamond,
  Frame,
  Link,
  PenTool,
  Ribbon,
  RotateCw,
  Scissors,
  Spline,
  SquareStack,
  SquaresIntersect,
  Star,
  Type,
  Workflow,
  ArrowDownToLine,
  GitMerge,
  Ruler,
  EllipsisVertical,
  CircleEllipsis,
  LayoutGrid,
  Footprints,
  Sprout,
  ScatterChart,
  Wind,
  Shuffle,
  Bell,
  Tangent,
  Camera,
  Lamp,
  Wallpaper,
  Palette,
  Images,
  Film,
  type LucideIcon,
} from 'lucide-react';

/** Icons by the names that declarations use. */
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
  imported: FileBox,
  outline: Star,
  curve: Spline,
  text: Type,
  svg: PenTool,
  extrude: SquareStack,
  revolve: RotateCw,
  sweep: Ribbon,
  loft: ChevronsDownUp,
  wires: Cable,
  'edges-to-curves': Workflow,
  relax: Anchor,
  even: Ruler,
  decimate: Diamond,
  along: Axis3d,
  cage: Frame,
  links: Link,
  part: Scissors,
  triangulate: Triangle,
  weld: GitMerge,
  combine: SquaresIntersect,
  bevel: Bolt,
  rest: ArrowDownToLine,
  'repeat-line': EllipsisVertical,
  'repeat-rings': CircleEllipsis,
  'repeat-grid': LayoutGrid,
  'repeat-path': Footprints,
  'repeat-points': Sprout,
  scatter: ScatterChart,
  stream: Wind,
  vary: Shuffle,
  swing: Bell,
  thread: Tangent,
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
  camera: Camera,
  lamp: Lamp,
  wallpaper: Wallpaper,
  palette: Palette,
  magnet: Magnet,
  images: Images,
  film: Film,
  image: ImageIcon,
  layers: Layers,
  globe: Globe,
  strip: GalleryHorizontalEnd,
};

/** Path data of a 24 × 24 drawing, as a declaration may bring. */
const isPath = (name: string) => /^M[\d\s.-]/.test(name);

/** The icon that a declaration names or brings as path data; a square if the name is unknown. */
export function DeclaredIcon({ name, size = 15 }: { name: string; size?: number }) {
  if (isPath(name)) {
    return (
      <svg
        width={size}
        height={size}
        viewBox="0 0 24 24"
        fill="none"
        stroke="currentColor"
        strokeWidth={1.9}
        strokeLinecap="round"
        strokeLinejoin="round"
        aria-hidden="true"
      >
        <path d={name} />
      </svg>
    );
  }
  const Icon = icons[name] ?? Square;
  return <Icon size={size} strokeWidth={1.9} aria-hidden="true" />;
}

export const StepIcon = DeclaredIcon;

/** Whether there is an icon of that name. */
export function hasIcon(name: string): boolean {
  return isPath(name) || Object.hasOwn(icons, name);
}
