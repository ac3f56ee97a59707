/**
 * Words of the trade and the words of ours that they lead to: single words first, phrases between commas. Keys are the
 * identifiers of entries, and `value:KIND.PARAM` for a value. Common practice; from memory.
 */
export const TRADE_WORDS: Readonly<Record<string, string>> = {
  'do:play': 'preview run start stop animate, playback, play animation',
  'do:go-seam': 'first frame start beginning rewind, go to start, jump to start',
  'do:frame-all':
    'fit zoom centre center view camera focus everything see, zoom to fit, zoom extents, reset view, reset ' +
    'camera, home view',
  'do:sheet':
    'variations alternatives explore random contact options ideas versions try different, contact sheet, mood ' +
    'board, randomise everything, inspiration',
  'do:history':
    'earlier old version versions revisions takes restore recover past yesterday lost back compare snapshot, ' +
    'version history, go back, revert, previous version, undo history, backup',
  'do:scene':
    'settings environment format resolution size background, scene settings, environment settings, world, ' +
    'backdrop settings, world settings',
  'do:seam':
    'loop closes seamless jump stutter gap repeat perfect first last match, seamless loop, loop check, perfect ' +
    'loop, does not loop, jump at the end, pop at the end',
  'do:deliver':
    'export render output save movie video file download, render settings, output settings, queue, export ' +
    'video, final render, batch render, resolution, aspect ratio, canvas size, square format, portrait, ' +
    'vertical video, 4k, crop, safe area, save movie, download movie',
  'do:true-light':
    'path tracing raytracing ray trace global illumination gi caustics realistic render bounce, path tracing, ' +
    'ray tracing, ray traced, production render, photorealistic',
  'do:quick-light': 'realtime real time rasterize viewport gpu, viewport render, realtime render',
  'do:detail': 'quality high low resolution preview final level proxy, level of detail, lod, proxy, preview quality',
  'do:throw': 'random seed shuffle reroll randomize dice, new seed, random seed, reroll',
  'do:duplicate-ribbon': 'copy clone object layer, duplicate, clone object, copy object, copy layer',
  'do:pair': 'instance linked copy twin reference, instance, linked duplicate, linked copy',
  'do:remove-ribbon': 'delete object layer erase, delete, delete object, remove object',
  'do:hide-ribbon': 'visibility visible eye mute disable object, hide, hide object, visibility, solo',
  'do:show-edges': 'wireframe mesh topology lines, wireframe, wireframe view, display edges',
  'do:show-clay': 'matte grey gray override material, clay render, grey material, override material',
  'do:dusk': 'dark theme night light mode',
  'do:shelf':
    'open files projects library home pieces, open file, open project, projects, library, file browser, home, ' +
    'all files, load project',
  'do:renders':
    'queue farm jobs network workers progress, render queue, render farm, render manager, network render, ' +
    'network rendering, workers, progress',
  'do:reference': 'test diagnostics gpu driver support',
  'do:true-settings':
    'samples, spp, noise threshold, denoise, denoiser, denoising, max bounces, bounces, sampling, render quality, ' +
    'adaptive sampling, fireflies, noisy render, grainy render',
  'do:fine-picture':
    'anti aliasing, antialiasing, aa, smooth edges, jaggies, jagged edges, multisampling, supersampling',
  'do:save-file':
    'export json, save as file, save a copy, save as, download piece, backup file, project file, share file, ' +
    'archive',
  'do:copy-link': 'share, share link, send link, url, review link, client review',
  'do:loop':
    'fps, frame rate, framerate, duration, length, frames, timeline length, frame range, speed of the loop, ' +
    'seconds, loop length, time, project settings, composition settings',
  'do:rename-piece': 'rename, rename piece, rename file, project name',
  'do:rename-ribbon': 'rename, rename object, rename layer, object name',
  'do:compare': 'a b compare, wipe, side by side, difference, diff',
  'do:shortcuts': 'hotkeys, keyboard shortcuts, keymap, key bindings',
  'do:guide': 'help, manual, documentation, tutorial, tutorials, learn, getting started',
  'do:add-step': 'modifier, modifiers, add modifier, deformer, effector, add deformer, filter, effect',
  'do:undo': 'undo, go back one, revert edit',
  'do:explain': 'tooltip, what is this, help on this',
  'step:torus': 'donut doughnut ring, donut, doughnut',
  'step:sphere': 'ball globe uv, ball, globe, uv sphere',
  'step:geodesic': 'icosphere ball icosahedron, icosphere, ico sphere',
  'step:box': 'cube cuboid block, cube, cuboid, block',
  'step:cylinder': 'tube pipe can',
  'step:capsule': 'pill',
  'step:plane': 'grid sheet floor quad, quad, floor plane, sheet, rectangle',
  'step:disc': 'circle disk, circle, disk, washer',
  'step:platonic': 'tetrahedron octahedron dodecahedron icosahedron polyhedron cube crystal gem',
  'step:medal': 'star gear rosette badge',
  'step:cord': 'knot rope torus knot spline tube, torus knot, knot, rope',
  'step:minimal': 'gyroid schwarz soap film surface',
  'step:endless': 'fractal mandelbulb menger sponge infinite, fractal, mandelbulb, menger sponge, sdf, signed distance',
  'step:drops': 'metaballs blobs liquid merge melt fluid, metaballs, metaball, blobby, blobs',
  'step:curve':
    'spline path line lissajous helix spiral, spline, path, bezier, helix, spiral, line, lissajous, nurbs curve',
  'step:text': 'type typography letters font word logo, typography, lettering, 3d text, type',
  'step:svg': 'vector illustration logo drawing import, svg, vector, illustrator, logo, import svg',
  'step:imported':
    'import model obj gltf glb ply mesh file load, import model, import mesh, load model, obj import, gltf import',
  'step:repeat-line':
    'array clone row duplicate copies instances linear, array, cloner, linear cloner, linear array, clone, ' +
    'duplicate in a row, row',
  'step:repeat-rings':
    'radial array circle polar clone around copies instances, radial array, radial cloner, cloner, polar ' +
    'array, clone in a circle, circle of copies, phyllotaxis, sunflower',
  'step:repeat-grid':
    'array matrix rows columns clone copies instances, grid array, grid cloner, cloner, matrix, 3d array, honeycomb',
  'step:repeat-path':
    'along spline curve clone array copies instances, copies along a curve, spline cloner, clone along a path, ' +
    'beads on a string',
  'step:repeat-points':
    'vertices surface clone copies instances hair, copy to points, object cloner, vertices cloner, instance on ' +
    'points, copies on vertices',
  'step:scatter':
    'distribute random surface copies instances grass sprinkle, surface scatter, scatter on surface, ' +
    'distribute on faces, random distribution',
  'step:stream':
    'particles emitter emission dust snow rain smoke flow, particles, particle system, emitter, particle ' +
    'emitter, dust, snow, rain, sparks, confetti, bubbles, flock, swarm, fish, school of fish, birds, boids, ' +
    'curl noise, trail, trails',
  'step:vary':
    'random offset effector step falloff delay stagger each different copies, random effector, effector, plain ' +
    'effector, stagger, delay, offset, step effector, per copy, randomize copies, cascade, falloff',
  'step:swing': 'pendulum physics jiggle hang dangle, pendulum, hanging, dangle, jiggle, spring',
  'step:thread': 'connect string lines plexus points, connect copies, tracer, string art, connect the dots',
  'step:extrude': 'thickness depth solid, extrusion, depth, thicken a shape',
  'step:revolve': 'lathe spin rotate profile vase, lathe, vase, wine glass, surface of revolution',
  'step:sweep': 'tube pipe along spline profile, tube, pipe along spline, sweep profile',
  'step:loft': 'skin between profiles, skin, bridge, skinning profiles',
  'step:wires':
    'wireframe tube curves edges, tube from curves, wires, curve thickness, spline thickness, cables, cable',
  'step:subdivide':
    'smooth subdivision surface catmull clark faces more, subdivision surface, subdivision, catmull clark, ' +
    'smooth mesh, turbosmooth',
  'step:smooth': 'relax laplacian soften, relax mesh, laplacian smooth, soften',
  'step:shade':
    'flat smooth normals angle facets, smooth shading, flat shading, auto smooth, hard edges, facets, phong tag',
  'step:decimate':
    'reduce polygons lowpoly low poly simplify fewer faces, low poly, reduce polygons, decimation, optimise ' +
    'mesh, polygon reduction',
  'step:displace':
    'noise bumps bumpy height relief distort deform terrain perlin organic wobble, noise deformer, ' +
    'displacement, displacement map, bumpy, organic surface, terrain, mountains, spikes',
  'step:twist': 'wring screw spiral deform, twist deformer, wring, screw, helix deform',
  'step:bend': 'curl curve arch deform, bend deformer, curl up, arch',
  'step:taper': 'scale along narrow pointed deform, taper deformer, narrow',
  'step:ripple': 'waves water sine wave deform pulse, wave deformer, waves, ripples, ripple deformer, concentric waves',
  'step:inflate': 'balloon puff swell bloat, puff, balloon, swell, bloat, push along normals',
  'step:spherify': 'round ball morph, cast, to sphere, round it off, morph, morph to ball',
  'step:jitter': 'random vertices shake glitch explode, random vertices, glitch, vertex noise',
  'step:push': 'magnet attract repel field falloff sculpt, attractor, magnet, repel, field, avoid',
  'step:along':
    'path deform spline travel snake, spline wrap, path deform, curve modifier, snake, worm, deform along a curve',
  'step:cage': 'lattice ffd free form deformation, ffd, lattice, free form deformation, soft selection',
  'step:shell': 'thickness solidify wall, solidify, thickness, wall thickness, cloth surface',
  'step:struts':
    'lattice cage wireframe bars edges, lattice structure, atom array, wireframe mesh, scaffold, truss, space frame',
  'step:links':
    'plexus connect neighbours lines network net, plexus, connect near points, network, constellation, ' +
    'proximity lines',
  'step:thin-out':
    'holes remove random faces delete, delete random faces, holes in a mesh, build up, dissolve, random holes, ' +
    'mask faces',
  'step:burst':
    'explode shatter fragments faces apart, explode, exploded view, shatter, fracture, fragments, voronoi ' +
    'fracture, poly fx',
  'step:nest':
    'copies inside each other russian doll scale recursive, russian dolls, recursive copies, droste, nested ' +
    'copies, concentric copies',
  'step:mirror': 'reflect symmetry flip, mirror, reflect, flip, symmetry object',
  'step:symmetry': 'kaleidoscope radial mirror, kaleidoscope, mandala, rotational symmetry, radial symmetry',
  'step:combine':
    'boolean union subtract difference intersect cut hole, boolean, booleans, union, subtract, difference, ' +
    'intersect, cut a hole, csg',
  'step:bevel': 'chamfer round edges fillet, fillet, chamfer, round edges, rounded edges, bevel edges',
  'step:place':
    'move position rotate scale transform translate, move, translate, rotate, scale, transform, position, ' +
    'pivot, origin, center, align, null',
  'step:spin':
    'rotate turn rotation around axis revolve, rotate, rotate it, rotation, turn round, turntable, revolve ' +
    'around, spinning',
  'step:tumble': 'roll rolling cube dice, rolling, rolling cube, roll, flip over, tumbling box',
  'step:journey':
    'travel motion path move along orbit follow, motion path, follow path, fly through, travel along, orbit, ' +
    'path animation, trail, flock, swarm',
  'step:cone': 'pyramid, funnel, spike cone',
  'step:outline': 'shape, polygon, star, 2d shape, ngon, superellipse, gear, rounded rectangle, profile',
  'step:shear': 'skew, slant, lean',
  'step:rest':
    'drop to floor, drop to ground, snap to floor, sit on the floor, put on the ground, ground, align, stack',
  'step:weld': 'merge vertices, remove doubles, merge points, weld points',
  'step:part': 'split edges, disconnect, detach, edge split, separate',
  'step:triangulate': 'triangles, triangulation, quads to tris',
  'step:even': 'resample, resample curve, spacing of points, uniform points',
  'step:relax': 'relax curve, smooth spline, rope relax',
  'step:edges-to-curves': 'edge to spline, extract edges, mesh to curve, edges to spline',
  'lights:studio': 'softbox hdri environment, studio lighting, three point lighting, light rig, default lights',
  'lights:sky': 'environment hdri outdoor dome, sky light, skylight, dome light, ambient light',
  'lights:daylight':
    'sun sky outdoor time day morning evening, sun and sky, physical sky, outdoor, golden hour, sunset, sunrise',
  'lights:panorama':
    'hdri hdr environment map image based lighting ibl exr, hdri, hdr, environment map, image based lighting, ' +
    'ibl, hdri lighting, env map',
  'lights:sun': 'directional light distant parallel, directional light, distant light, parallel light, key light',
  'lights:area':
    'softbox rectangle lamp panel, area light, softbox, rim light, back light, fill light, soft shadows, light ' +
    'panel, window light',
  'lights:ball': 'point light bulb omni sphere lamp, point light, light bulb, omni light, omni',
  'lights:spot': 'spotlight cone lamp beam, spotlight, spot light, cone light, stage light, gobo',
  'lights:gradient': 'gradient environment, gradient sky, coloured surroundings',
  'backdrop:clear': 'alpha transparency no background, transparent background, alpha channel, alpha, no background',
  'backdrop:colour': 'background color solid, background colour, background color, solid background',
  'backdrop:image': 'background photo plate, background image, background picture, background plate',
  'backdrop:gradient': 'gradient background, background gradient, ramp background',
  'backdrop:round': 'show hdri, environment background, see the environment, skybox',
  'ground:catcher':
    'shadow catcher floor plane reflection mirror, shadow catcher, floor shadow, reflective floor, mirror ' +
    'floor, ground plane, wet floor, contact shadow',
  'ground:sweep':
    'cyclorama infinity cove background floor, cyclorama, cyc wall, infinity cove, seamless paper, studio ' +
    'backdrop, floor',
  'air:fog': 'mist haze depth atmosphere volume, mist, depth fog, haze in the distance, aerial perspective, atmosphere',
  'air:haze':
    'god rays volumetric light shafts beams atmosphere, volumetric light, god rays, light shafts, volumetrics, ' +
    'light beams, volumetric fog',
  'picture:bloom': 'glow glare halo effect, glow effect, glare, halo, glow in post, light bleed',
  'picture:grade':
    'color colour correction grading wheels, color grading, colour grading, color correction, color wheels, grade',
  'picture:levels': 'contrast brightness tone curve, curves, levels, tone curve, rgb curves, brightness',
  'picture:look':
    'lut film contrast preset style, lut, film look, tone mapping, contrast, saturation, hue saturation, view ' +
    'transform, filmic, agx, aces, black and white',
  'picture:vignette': 'dark corners edges, dark corners, vignetting',
  'picture:fringe':
    'chromatic aberration rgb split lens, chromatic aberration, rgb split, lens distortion, color fringing',
  'picture:grain': 'film noise texture, film grain, noise overlay, grain',
  'part:base':
    'color colour diffuse albedo roughness material, colour, color, diffuse, albedo, roughness, material ' +
    'colour, base color, glossy, matte, plastic, specular, shiny',
  'part:metal':
    'metallic chrome steel gold shiny material, metal, chrome, gold, silver, steel, copper, metallic, mirror',
  'part:brushed': 'anisotropic anisotropy metal scratches, anisotropy, anisotropic, brushed metal, scratches',
  'part:bump': 'normal map relief texture, bump map, normal map, bump, leather, surface texture',
  'part:glass':
    'transparent refraction transmission ior crystal water material, glass, refraction, transparent, ior, ' +
    'crystal, water, transmission, ice, diamond, dispersion, prism, caustics',
  'part:film':
    'iridescent iridescence thin film soap rainbow oil, iridescence, iridescent, thin film, soap bubble, oil ' +
    'slick, holographic, pearlescent',
  'part:coat':
    'clearcoat varnish lacquer gloss car paint, clear coat, clearcoat, varnish, lacquer, car paint, glossy coat',
  'part:cloth': 'velvet sheen fabric fuzz, velvet, sheen, fabric, felt, fuzz',
  'part:glow':
    'emission emissive light neon luminous, emission, emissive, neon, self illumination, light emitting, ' +
    'luminance, led',
  'part:veil':
    'opacity transparency additive see through ghost, opacity, transparency, see through, ghost, x ray, ' +
    'additive, alpha blend, hologram',
  'part:cut': 'alpha holes mask cutout, alpha mask, cutout, holes, opacity mask, clip map',
  'part:wires': 'wireframe material, wireframe shader, wireframe, grid lines, toon outline, edge lines',
  'part:dots': 'point cloud, dots material, halftone, vertices visible',
  'output:mp4': 'h264 video movie social web, mp4, h264, h 264, video for social media, instagram, video file',
  'output:hevc': 'h265 video movie 10 bit, h265, hevc, 10 bit video',
  'output:webm': 'vp9 video alpha web transparent, webm, vp9, web video, transparent video',
  'output:prores':
    'edit alpha broadcast transparent mov compositing, prores, prores 4444, mov, video with alpha, edit codec, ' +
    'broadcast',
  'output:png':
    'image sequence frames transparent pictures stills, png sequence, image sequence, frames as images, still ' +
    'frames, frames',
  'output:exr':
    'passes aov layers compositing hdr depth render multilayer, exr, render passes, aov, aovs, cryptomatte, ' +
    'multilayer exr, z depth, depth pass, compositing, linear frames',
  'output:gif': 'animated image chat, gif, animated gif',
  'output:glb':
    'gltf 3d model geometry engine ar web animation, gltf, glb, export model, ar model, 3d model for the web',
  'output:usd': 'openusd 3d scene geometry animation pipeline, usd, usdz, openusd, usda, export scene',
  'output:obj': '3d model geometry sequence export mesh, obj export, obj sequence, export mesh, export geometry',
  'output:poster':
    'still thumbnail cover image, still, still image, screenshot, thumbnail, print, high resolution still, ' +
    'save frame, snapshot',
  'output:page': 'html website embed web, html, embed, website, web embed, web page',
  'output:av1': 'av1, small video',
  'output:jpeg': 'jpg, jpeg sequence',
  'output:apng': 'apng, animated png',
  'output:webp': 'webp, sticker',
  'output:ply': 'ply, point cloud export, 3d print, stl',
  'output:strip': 'filmstrip, contact strip, sprite sheet, spritesheet',
  'help:motion/keys':
    'keyframe, keyframes, keys, set key, animate, animate a value, ease, easing, ease in, ease out, slow in ' +
    'slow out, ease in out, bezier handles, graph editor, f curve, animation curve, interpolation, tangents, ' +
    'dope sheet',
  'help:motion/wave':
    'oscillate, sine, oscillation, lfo, pulse, breathe, sine wave, vibrate, back and forth, ping pong, bounce',
  'help:motion/wander': 'wiggle, shake, camera shake, handheld, random motion, noise animation, drift',
  'help:motion/stairs': 'step animation, stepped, click through, clockwork, tick, ratchet',
  'help:motion/formula': 'expression, expressions, maths, math, function, formula, sin cos, equation',
  'help:motion/follow':
    'link values, driver, drive by, connect values, spring, delay, lag, overshoot, secondary motion, follow ' +
    'through, inertia, constraint',
  'help:noise/cellular': 'voronoi, worley, cells, cell noise, voronoi noise',
  'help:noise/cellular-edges': 'voronoi, cracks, cracked, crackle',
  'help:noise/gradient': 'perlin, perlin noise, fbm',
  'help:noise/simplex': 'simplex noise, smooth noise',
  'help:noise/flow': 'curl noise, flow noise, swirl noise',
  'help:noise/turbulence': 'turbulence, turbulent',
  'help:noise/ridged': 'ridged multifractal, mountain noise',
  'help:noise/water': 'caustics, water caustics',
  'help:noise/wood': 'wood, wood grain',
  'help:noise/marble': 'marble, veins',
  'help:patterns/facing': 'fresnel, rim, facing ratio, falloff, edge glow, incidence',
  'help:patterns/crevices': 'ambient occlusion, ao, cavity, curvature, dirt, dirt map',
  'help:patterns/bands': 'stripes, checker, checkerboard, bands, rings pattern',
  'help:patterns/noise': 'texture, procedural texture, noise texture, shader',
  'help:patterns/image': 'texture, image texture, uv map, uv texture, decal, label, projection',
  'help:patterns/along': 'gradient, ramp, color ramp, gradient material',
  'help:patterns/copies': 'color by index, colour per copy, random colours, random color per object, multicolour',
  'help:patterns/depth': 'depth color, z depth material',
  'value:orbit.fNumber': 'depth of field, dof, bokeh, aperture, blur, shallow focus, f stop, fstop, iris, defocus',
  'value:orbit.focus': 'focus distance, rack focus, focal distance, pull focus',
  'value:orbit.focalLength': 'fov, field of view, wide angle, telephoto, zoom, lens, perspective strength, fisheye',
  'value:orbit.lens': 'orthographic, isometric, ortho, perspective, parallel projection, axonometric, iso view',
  'value:orbit.shutter': 'motion blur, shutter, shutter angle, blur, 180 degree shutter, exposure time',
  'value:orbit.blades': 'bokeh shape, aperture blades, hexagonal bokeh',
  'value:orbit.exposure': 'exposure, brightness, too dark, too bright, ev, exposure compensation',
  'value:orbit.azimuth': 'turntable, orbit, camera orbit, camera rotation, rotate camera, circle around',
  'value:orbit.elevation': 'camera height, look down, high angle, top view, bird eye',
  'value:orbit.roll': 'dutch angle, camera roll, tilt horizon, bank',
  'value:orbit.target': 'look at, aim, camera target, pan, point of interest',
  'value:orbit.distance': 'dolly, dolly in, zoom in, camera distance, push in, closer',
  'value:orbit.shift': 'lens shift, tilt shift, vertical shift',
  'value:studio.shadeAmount': 'ambient occlusion, ao, contact shadows',
  'value:studio.shade': 'ambient occlusion, ao',
  'value:studio.strength': 'light intensity, brightness of light, light power',
  'value:studio.turn': 'rotate lights, rotate environment, rotate hdri, light direction',
  'value:frames.samples': 'samples, spp, sample count, samples per pixel',
  'value:frames.subframes': 'anti aliasing, motion blur samples, temporal samples',
  'value:frames.denoise': 'denoise, denoiser, denoising',
  'value:frames.range': 'frame range, work area, in and out, preview range',
  'value:base.roughness': 'roughness, glossiness, shininess, matte, blurry reflections',
  'value:base.colour': 'object colour, color, material colour, diffuse colour',
};
