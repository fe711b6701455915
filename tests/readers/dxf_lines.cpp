// Prints what a DXF draws, as the library libdxflib reads it: one line an entity, with its block, layer and coordinates.
#include <cstdio>
#include <string>
#include <dxflib/dl_creationadapter.h>
#include <dxflib/dl_dxf.h>

class Lister : public DL_CreationAdapter {
 public:
  std::string block = "-";
  void addBlock(const DL_BlockData& data) override { block = data.name; }
  void endBlock() override { block = "-"; }
  void addPolyline(const DL_PolylineData& data) override { head("POLYLINE"); std::printf(" %d", data.flags & 1); }
  void addVertex(const DL_VertexData& data) override { std::printf(" %.17g,%.17g", data.x, data.y); }
  void addPoint(const DL_PointData& data) override { head("POINT"); std::printf(" %.17g,%.17g", data.x, data.y); }
  void addSpline(const DL_SplineData& data) override { head("SPLINE"); std::printf(" %u", data.degree); }
  void addControlPoint(const DL_ControlPointData& data) override { std::printf(" %.17g,%.17g", data.x, data.y); }
  void addText(const DL_TextData& data) override { head("TEXT"); std::printf(" %s", data.text.c_str()); }
  void addInsert(const DL_InsertData& data) override {
    head("INSERT");
    std::printf(" %s %.17g,%.17g", data.name.c_str(), data.ipx, data.ipy);
  }

 private:
  void head(const char* kind) { std::printf("\n%s|%s|%s|", kind, block.c_str(), attributes.getLayer().c_str()); }
};

int main(int count, char** words) {
  Lister lister;
  DL_Dxf dxf;
  if (count != 2 || !dxf.in(words[1], &lister)) return 1;
  std::printf("\n");
  return 0;
}
