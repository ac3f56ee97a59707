// Rays, trees and instances by Embree 3, one thread, for bench/embree.ts: reads a scene and rays, prints milliseconds.
// Build: g++ -O3 -march=native bench/embree.cpp -lembree3 -o embree
#include <embree3/rtcore.h>

#include <chrono>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <vector>

using Clock = std::chrono::steady_clock;

static double since(Clock::time_point t) { return std::chrono::duration<double, std::milli>(Clock::now() - t).count(); }

template <typename T> static std::vector<T> read(FILE* f) {
  uint32_t n = 0;
  if (fread(&n, 4, 1, f) != 1) exit(1);
  std::vector<T> out(n);
  if (n > 0 && fread(out.data(), sizeof(T), n, f) != n) exit(1);
  return out;
}

static RTCGeometry mesh(RTCDevice device, const std::vector<float>& points, const std::vector<uint32_t>& corners) {
  RTCGeometry g = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_TRIANGLE);
  void* p = rtcSetNewGeometryBuffer(g, RTC_BUFFER_TYPE_VERTEX, 0, RTC_FORMAT_FLOAT3, 12, points.size() / 3);
  memcpy(p, points.data(), 4 * points.size());
  void* c = rtcSetNewGeometryBuffer(g, RTC_BUFFER_TYPE_INDEX, 0, RTC_FORMAT_UINT3, 12, corners.size() / 3);
  memcpy(c, corners.data(), 4 * corners.size());
  rtcCommitGeometry(g);
  return g;
}

static RTCScene sceneOf(RTCDevice device) {
  RTCScene s = rtcNewScene(device);
  rtcSetSceneBuildQuality(s, RTC_BUILD_QUALITY_MEDIUM);
  return s;
}

int main(int, char** argv) {
  FILE* f = fopen(argv[1], "rb");
  if (!f) return 1;
  const auto points = read<float>(f);
  const auto corners = read<uint32_t>(f);
  // 12 numbers by rows for each instance; none for a shape that stands alone.
  const auto matrices = read<float>(f);
  const auto rays = read<float>(f);
  RTCDevice device = rtcNewDevice("threads=1,set_affinity=0");
  double build = 1e9;
  RTCScene scene = nullptr;
  for (int k = 0; k < 5; k++) {
    if (scene) rtcReleaseScene(scene);
    const auto t = Clock::now();
    RTCScene one = sceneOf(device);
    RTCGeometry g = mesh(device, points, corners);
    rtcAttachGeometry(one, g);
    rtcReleaseGeometry(g);
    rtcCommitScene(one);
    scene = one;
    const double took = since(t);
    if (took < build) build = took;
  }
  // The same triangles in other places, in a tree that is there.
  double refit = 1e9;
  if (matrices.empty()) {
    RTCScene moving = rtcNewScene(device);
    rtcSetSceneFlags(moving, RTC_SCENE_FLAG_DYNAMIC);
    rtcSetSceneBuildQuality(moving, RTC_BUILD_QUALITY_LOW);
    RTCGeometry g = mesh(device, points, corners);
    rtcSetGeometryBuildQuality(g, RTC_BUILD_QUALITY_REFIT);
    rtcCommitGeometry(g);
    rtcAttachGeometry(moving, g);
    rtcCommitScene(moving);
    float* p = static_cast<float*>(rtcGetGeometryBufferData(g, RTC_BUFFER_TYPE_VERTEX, 0));
    for (int k = 0; k < 7; k++) {
      for (size_t i = 0; i < points.size(); i += 3) p[i] = points[i] + 0.1f * (k % 2 ? 1 : -1) * points[i + 1];
      const auto t = Clock::now();
      rtcUpdateGeometryBuffer(g, RTC_BUFFER_TYPE_VERTEX, 0);
      rtcCommitGeometry(g);
      rtcCommitScene(moving);
      const double took = since(t);
      if (took < refit) refit = took;
    }
    rtcReleaseGeometry(g);
    rtcReleaseScene(moving);
  }
  if (!matrices.empty()) {
    RTCScene all = sceneOf(device);
    for (size_t i = 0; i < matrices.size(); i += 12) {
      RTCGeometry g = rtcNewGeometry(device, RTC_GEOMETRY_TYPE_INSTANCE);
      rtcSetGeometryInstancedScene(g, scene);
      rtcSetGeometryTransform(g, 0, RTC_FORMAT_FLOAT3X4_ROW_MAJOR, &matrices[i]);
      rtcCommitGeometry(g);
      rtcAttachGeometry(all, g);
      rtcReleaseGeometry(g);
    }
    rtcCommitScene(all);
    scene = all;
  }
  const size_t count = rays.size() / 6;
  RTCIntersectContext context;
  rtcInitIntersectContext(&context);
  double first = 1e9, any = 1e9;
  size_t hits = 0;
  for (int k = 0; k < 7; k++) {
    size_t met = 0;
    auto t = Clock::now();
    for (size_t i = 0; i < count; i++) {
      const float* r = &rays[6 * i];
      RTCRayHit h = {};
      h.ray.org_x = r[0], h.ray.org_y = r[1], h.ray.org_z = r[2];
      h.ray.dir_x = r[3], h.ray.dir_y = r[4], h.ray.dir_z = r[5];
      h.ray.tnear = 0, h.ray.tfar = __builtin_inff(), h.ray.mask = -1;
      h.hit.geomID = RTC_INVALID_GEOMETRY_ID, h.hit.instID[0] = RTC_INVALID_GEOMETRY_ID;
      rtcIntersect1(scene, &context, &h);
      met += h.hit.geomID != RTC_INVALID_GEOMETRY_ID;
    }
    double took = since(t);
    if (took < first) first = took;
    hits = met;
    t = Clock::now();
    for (size_t i = 0; i < count; i++) {
      const float* r = &rays[6 * i];
      RTCRay h = {};
      h.org_x = r[0], h.org_y = r[1], h.org_z = r[2];
      h.dir_x = r[3], h.dir_y = r[4], h.dir_z = r[5];
      h.tnear = 0, h.tfar = __builtin_inff(), h.mask = -1;
      rtcOccluded1(scene, &context, &h);
    }
    took = since(t);
    if (took < any) any = took;
  }
  printf("{\"build\":%.3f,\"refit\":%.3f,\"first\":%.3f,\"any\":%.3f,\"hits\":%zu}\n", build, refit, first, any, hits);
  return 0;
}
