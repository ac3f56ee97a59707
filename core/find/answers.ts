/** What people ask for that Maypole has not, and what comes nearest. */
export interface Answer {
  readonly id: string;
  readonly title: string;
  /** A sentence: what is not there, and what does the nearest job. */
  readonly help: string;
  /** Phrases of the trade, between commas. */
  readonly also: string;
  /** The entry that it leads to. */
  readonly leads: string;
}

export const ANSWERS: readonly Answer[] = [
  {
    id: 'sound',
    title: 'Sound',
    help: 'Maypole makes silent loops. To move to a beat, give a Wave or Stairs as many turns as the loop has beats.',
    also: 'audio, music, sound, beat, audio reactive, mp3, wav, soundtrack, rhythm, bpm, equalizer, spectrum',
    leads: 'help:motion/wave',
  },
  {
    id: 'fluid',
    title: 'Fluid simulation',
    help: 'Nothing flows by simulation here. Drops melt into each other, Stream carries copies along a current.',
    also: 'fluid, fluid simulation, liquid simulation, flip fluids, sph, splash, water simulation, viscosity, pour',
    leads: 'help:form/drops',
  },
  {
    id: 'smoke',
    title: 'Smoke and fire',
    help: 'There is no simulated smoke or fire. Lit air shows beams of light, and Stream gives particles that rise.',
    also: 'smoke, fire, pyro, explosion simulation, clouds, volumetrics simulation, vdb, voxel volume',
    leads: 'help:air/haze',
  },
  {
    id: 'cloth-simulation',
    title: 'Cloth simulation',
    help: 'Nothing hangs or folds by simulation. A plane with Displace and Ripple moves like cloth and closes.',
    also: 'cloth simulation, fabric simulation, softbody, soft body, drape, wind simulation, flag',
    leads: 'help:deform/displace',
  },
  {
    id: 'physics',
    title: 'Bodies that fall and collide',
    help: 'There is no rigid body simulation. Tumble rolls bodies exactly, Swing hangs them, Rest on sets them down.',
    also: 'rigid body, rigid bodies, collision, collide, dynamics, simulation, gravity, bounce ball, domino',
    leads: 'help:place/tumble',
  },
  {
    id: 'group',
    title: 'Groups and parents',
    help: 'Ribbons have no parents. Follow ties one value to another, and a Pair goes along with its ribbon.',
    also: 'group, groups, parent, parenting, null, null object, empty, hierarchy, folder, constraint, child, nest objects',
    leads: 'help:motion/follow',
  },
  {
    id: 'bake',
    title: 'Baking',
    help: 'Nothing needs to be baked: every frame is worked out by itself. Geometry goes out as files for each frame.',
    also: 'bake, baking, cache, alembic, point cache, bake simulation, bake animation',
    leads: 'help:outputs/glb',
  },
  {
    id: 'watermark',
    title: 'Watermark and titles over the picture',
    help: 'Nothing is laid over the picture. Text is a form: put it before the camera, or lay it over in a video editor.',
    also: 'watermark, overlay, logo overlay, lower third, caption, subtitle, burn in, timecode',
    leads: 'help:form/text',
  },
  {
    id: 'rigging',
    title: 'Bones and rigs',
    help: 'There are no bones. Bend, Twist, Along a path and the Free cage move forms, each of them by keys.',
    also: 'rig, rigging, bones, skeleton, armature, ik, inverse kinematics, character, skinning, walk cycle, blend shape',
    leads: 'help:deform/cage',
  },
  {
    id: 'paint',
    title: 'Painting and sculpting by hand',
    help: 'Nothing is painted by hand. Patterns colour a surface by its place, and Displace shapes it by noise or picture.',
    also: 'paint, painting, texture paint, vertex paint, sculpt, sculpting, brush, weight paint, uv unwrap, unwrap',
    leads: 'help:patterns/noise',
  },
  {
    id: 'modelling',
    title: 'Modelling by hand',
    help: 'Points and faces are not edited one by one. Steps shape whole forms; other models come in by Imported.',
    also: 'edit mode, polygon modelling, modeling, knife, loop cut, vertex editing, extrude faces, retopology, inset',
    leads: 'help:form/imported',
  },
  {
    id: 'subsurface',
    title: 'Light below the surface',
    help: 'Wax and skin are not there yet. Glass with a tint, or See-through, lets light into a body.',
    also: 'subsurface, subsurface scattering, sss, wax, skin, translucent, translucency, jade, milk, marble material',
    leads: 'help:finish/glass',
  },
  {
    id: 'region',
    title: 'Render region',
    help: 'A part of the picture is not rendered alone: click where true light is to begin, and it starts there.',
    also: 'render region, region render, crop render, interactive render region, region of interest',
    leads: 'do:true-light',
  },
  {
    id: 'blur-picture',
    title: 'Blur of the whole picture',
    help: 'No effect blurs the picture. The camera does: a low f-number out of focus, the shutter where things move.',
    also: 'blur, gaussian blur, lens blur, directional blur, soft focus, defocus',
    leads: 'help:cameras/orbit',
  },
  {
    id: 'nodes',
    title: 'Nodes and scripts',
    help: 'There are no nodes and no scripts. The steps of a ribbon are its chain, and any value takes a Formula.',
    also: 'nodes, node editor, geometry nodes, script, scripting, python, javascript, expression, code, plugin, api',
    leads: 'help:motion/formula',
  },
  {
    id: 'hair',
    title: 'Hair and fur',
    help: 'There is no hair system. Scatter thin copies over a form, or make rods with Wires and bend them.',
    also: 'hair, fur, grooming, strands, feathers',
    leads: 'help:repeat/scatter',
  },
  {
    id: 'stereo',
    title: 'Stereo and surround pictures',
    help: 'Cameras see one flat picture: no stereo, no 360°, no virtual reality.',
    also: 'stereo, stereoscopic, vr, 360, 360 video, equirectangular render, dome, fulldome, virtual reality, vr180',
    leads: 'help:cameras/orbit',
  },
  {
    id: 'tracking',
    title: 'Footage and tracking',
    help: 'Footage is not read or tracked. A still picture can be the backdrop, and the piece goes out without one.',
    also: 'footage, camera tracking, match move, video texture, green screen, keying, chroma key, rotoscope',
    leads: 'help:backdrop/image',
  },
];
