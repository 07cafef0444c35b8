#include "core/format/landxml.h"

#include <algorithm>
#include <cmath>
#include <ctime>
#include <limits>
#include <map>
#include <pugixml.hpp>
#include <set>
#include <sstream>

#include "core/base/notation.h"
#include "core/derive/edge.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/objects/parcel.h"
#include "core/objects/profile.h"
#include "core/operations/markings.h"
#include "core/route/cross_section.h"

namespace erdwerk::format {

using geometry::Vec2;
using geometry::Vec3;

namespace {

std::string northEast(Vec2 p) {
    return formatExact(p.y) + " " + formatExact(p.x);
}
std::string northEastHeight(const Vec3& p) {
    return northEast(p.plan()) + " " + formatExact(p.z);
}

void writeUnits(pugi::xml_node root, LengthUnit unit) {
    const bool metric = unit == LengthUnit::Metre;
    auto node = root.append_child("Units").append_child(metric ? "Metric" : "Imperial");
    node.append_attribute("areaUnit") = metric ? "squareMeter" : "squareFoot";
    node.append_attribute("linearUnit") =
        metric ? "meter" : (unit == LengthUnit::UsSurveyFoot ? "USSurveyFoot" : "foot");
    node.append_attribute("volumeUnit") = metric ? "cubicMeter" : "cubicFeet";
    node.append_attribute("temperatureUnit") = metric ? "celsius" : "fahrenheit";
    node.append_attribute("pressureUnit") = metric ? "HPA" : "inHG";
    node.append_attribute("angularUnit") = "decimal degrees";
    node.append_attribute("directionUnit") = "decimal degrees";
}

void writeElement(pugi::xml_node parent, const geometry::Straight& line) {
    auto node = parent.append_child("Line");
    node.append_attribute("length") = formatExact(line.length()).c_str();
    node.append_child("Start").text() = northEast(line.start).c_str();
    node.append_child("End").text() = northEast(line.end).c_str();
}

void writeElement(pugi::xml_node parent, const geometry::Arc& arc) {
    auto node = parent.append_child("Curve");
    node.append_attribute("rot") = arc.right() ? "cw" : "ccw";
    node.append_attribute("radius") = formatExact(arc.radius).c_str();
    node.append_attribute("length") = formatExact(arc.length()).c_str();
    node.append_child("Start").text() = northEast(arc.start).c_str();
    node.append_child("Center").text() = northEast(arc.centre).c_str();
    node.append_child("End").text() = northEast(arc.end).c_str();
}

std::string radiusText(double curvature) {
    return curvature == 0 ? "INF" : formatExact(1 / std::abs(curvature));
}

void writeElement(pugi::xml_node parent, const geometry::Clothoid& spiral) {
    auto node = parent.append_child("Spiral");
    node.append_attribute("spiType") = "clothoid";
    node.append_attribute("length") = formatExact(spiral.length()).c_str();
    node.append_attribute("radiusStart") = radiusText(spiral.shape.startCurvature).c_str();
    node.append_attribute("radiusEnd") = radiusText(spiral.shape.endCurvature).c_str();
    node.append_attribute("rot") = spiral.shape.turn().radians() > 0 ? "cw" : "ccw";
    node.append_child("Start").text() = northEast(spiral.start).c_str();
    // Where the tangents of its ends meet.
    const Vec2 in = geometry::directionOf(spiral.direction(0));
    const Vec2 out = geometry::directionOf(spiral.direction(1));
    const double across = geometry::cross(in, out);
    const double along = across == 0 ? 0 : geometry::cross(spiral.end - spiral.start, out) / across;
    node.append_child("PI").text() = northEast(spiral.start + in * along).c_str();
    node.append_child("End").text() = northEast(spiral.end).c_str();
}

void writeGeometry(pugi::xml_node parent, const geometry::Path& path) {
    auto geometry = parent.append_child("CoordGeom");
    for (const auto& s : path)
        std::visit([&](const auto& element) { writeElement(geometry, element); }, elementOf(s));
}

std::string pairsText(const std::vector<Vec2>& pairs) {
    std::string out;
    for (const Vec2& p : pairs) out += (out.empty() ? "" : " ") + formatExact(p.x) + " " + formatExact(p.y);
    return out;
}

void writeCrossSections(pugi::xml_node node, const std::vector<XmlCrossSection>& sections) {
    if (sections.empty()) return;
    auto parent = node.append_child("CrossSects");
    for (const auto& section : sections) {
        auto child = parent.append_child("CrossSect");
        child.append_attribute("sta") = formatExact(section.station).c_str();
        for (const auto& surface : section.surfaces) {
            auto of = child.append_child("CrossSectSurf");
            of.append_attribute("name") = surface.name.c_str();
            of.append_child("PntList2D").text() = pairsText(surface.places).c_str();
        }
    }
}

void writeProfiles(pugi::xml_node node, const XmlAlignment& alignment) {
    if (alignment.profiles.empty() && alignment.grounds.empty()) return;
    auto parent = node.append_child("Profile");
    parent.append_attribute("name") = alignment.name.c_str();
    for (const auto& ground : alignment.grounds) {
        auto surface = parent.append_child("ProfSurf");
        surface.append_attribute("name") = ground.name.c_str();
        surface.append_child("PntList2D").text() = pairsText(ground.places).c_str();
    }
    for (const auto& profile : alignment.profiles) {
        auto design = parent.append_child("ProfAlign");
        design.append_attribute("name") = profile.name.c_str();
        for (const auto& pvi : profile.design) {
            auto child = design.append_child(pvi.curveLength > 0 ? "ParaCurve" : "PVI");
            if (pvi.curveLength > 0) child.append_attribute("length") = formatExact(pvi.curveLength).c_str();
            child.text() = (formatExact(pvi.station) + " " + formatExact(pvi.height)).c_str();
        }
    }
}

void writeAlignment(pugi::xml_node parent, const XmlAlignment& a) {
    auto node = parent.append_child("Alignment");
    node.append_attribute("name") = a.name.c_str();
    node.append_attribute("length") = formatExact(geometry::lengthOf(a.path)).c_str();
    node.append_attribute("staStart") = formatExact(a.stationing.start()).c_str();
    writeGeometry(node, a.path);
    for (std::size_t k = 0; k < a.stationing.equations().size(); ++k) {
        const auto& e = a.stationing.equations()[k];
        auto equation = node.append_child("StaEquation");
        equation.append_attribute("staBack") = formatExact(e.back).c_str();
        equation.append_attribute("staAhead") = formatExact(e.ahead).c_str();
        equation.append_attribute("staInternal") =
            formatExact(a.stationing.start() + a.stationing.distanceOf(k)).c_str();
        equation.append_attribute("staIncrement") = "increasing";
    }
    writeProfiles(node, a);
    writeCrossSections(node, a.sections);
}

/// outer, void or island, as the standard has it.
const char* boundaryType(objects::Role role) {
    return role == objects::Role::Edge ? "outer" : (role == objects::Role::Opening ? "void" : "island");
}

void writeSourceLines(pugi::xml_node surface, const std::vector<XmlSurfaceLine>& lines) {
    pugi::xml_node data;
    pugi::xml_node breaklines;
    pugi::xml_node boundaries;
    const auto child = [&](pugi::xml_node& node, const char* name) {
        if (!data) data = surface.append_child("SourceData");
        if (!node) node = data.append_child(name);
        return node;
    };
    for (const bool ofBoundaries : {true, false})
        for (const auto& line : lines) {
            const bool boundary = objects::isRing(line.role);
            if (boundary != ofBoundaries) continue;
            auto node = boundary ? child(boundaries, "Boundaries").append_child("Boundary")
                                 : child(breaklines, "Breaklines").append_child("Breakline");
            node.append_attribute(boundary ? "bndType" : "brkType") =
                boundary ? boundaryType(line.role) : "standard";
            if (boundary) node.append_attribute("edgeTrim") = "true";
            node.append_attribute("name") = line.name.c_str();
            std::string text;
            auto places = line.places;
            if (line.closed && !places.empty()) places.push_back(places.front());
            for (const Vec3& p : places)
                text +=
                    (text.empty() ? "" : " ") + (line.withHeights ? northEastHeight(p) : northEast(p.plan()));
            node.append_child(line.withHeights ? "PntList3D" : "PntList2D").text() = text.c_str();
        }
}

void writeSurface(pugi::xml_node parent, const XmlSurface& surface) {
    auto node = parent.append_child("Surface");
    node.append_attribute("name") = surface.name.c_str();
    writeSourceLines(node, surface.lines);
    auto definition = node.append_child("Definition");
    definition.append_attribute("surfType") = "TIN";
    auto points = definition.append_child("Pnts");
    std::size_t id = 0;
    for (const Vec3& v : surface.tin.vertices()) {
        auto p = points.append_child("P");
        p.append_attribute("id") = std::to_string(++id).c_str();
        p.text() = northEastHeight(v).c_str();
    }
    auto faces = definition.append_child("Faces");
    for (std::uint32_t t = 0; t < surface.tin.triangleCount(); ++t) {
        std::string text;
        for (int i = 0; i < 3; ++i) text += (i > 0 ? " " : "") + std::to_string(surface.tin.corner(t, i) + 1);
        faces.append_child("F").text() = text.c_str();
    }
}

void writePoints(pugi::xml_node root, const std::vector<survey::SurveyPoint>& all) {
    auto points = root.append_child("CgPoints");
    std::map<std::string, int> used;
    for (const auto& p : all) {
        auto node = points.append_child("CgPoint");
        // Names must be unique in the file; a repeated number gets a suffix, its number stays in the
        // description.
        const int repeat = used[p.number]++;
        node.append_attribute("name") =
            (repeat == 0 && !p.number.empty() ? p.number : p.number + "_" + std::to_string(repeat)).c_str();
        if (!p.code.empty()) node.append_attribute("code") = p.code.c_str();
        if (!p.note.empty()) node.append_attribute("desc") = p.note.c_str();
        node.text() = (northEast(p.plan) + (p.height ? " " + formatExact(*p.height) : std::string())).c_str();
    }
}

struct StringWriter : pugi::xml_writer {
    std::string text;
    void write(const void* data, std::size_t size) override {
        text.append(static_cast<const char*>(data), size);
    }
};

}  // namespace

Result<void> writeLandXml(const std::string& path, const LandXml& content, const std::string& projectName) {
    pugi::xml_document document;
    auto declaration = document.prepend_child(pugi::node_declaration);
    declaration.append_attribute("version") = "1.0";
    declaration.append_attribute("encoding") = "UTF-8";
    auto root = document.append_child("LandXML");
    root.append_attribute("xmlns") = "http://www.landxml.org/schema/LandXML-1.2";
    root.append_attribute("xmlns:xsi") = "http://www.w3.org/2001/XMLSchema-instance";
    root.append_attribute("xsi:schemaLocation") =
        "http://www.landxml.org/schema/LandXML-1.2 http://www.landxml.org/schema/LandXML-1.2/LandXML-1.2.xsd";
    root.append_attribute("version") = "1.2";
    const std::time_t now = std::time(nullptr);
    std::tm utc{};
    gmtime_r(&now, &utc);
    char text[16];
    std::strftime(text, sizeof text, "%Y-%m-%d", &utc);
    root.append_attribute("date") = text;
    std::strftime(text, sizeof text, "%H:%M:%S", &utc);
    root.append_attribute("time") = text;
    writeUnits(root, content.unit);
    root.append_child("Project").append_attribute("name") = projectName.c_str();
    auto application = root.append_child("Application");
    application.append_attribute("name") = "Erdwerk";
    application.append_attribute("version") = "0.1.0";
    if (!content.points.empty()) writePoints(root, content.points);
    if (!content.surfaces.empty()) {
        auto surfaces = root.append_child("Surfaces");
        for (const auto& s : content.surfaces) writeSurface(surfaces, s);
    }
    if (!content.alignments.empty()) {
        auto alignments = root.append_child("Alignments");
        for (const auto& a : content.alignments) writeAlignment(alignments, a);
    }
    if (!content.parcels.empty()) {
        auto parcels = root.append_child("Parcels");
        for (const auto& p : content.parcels) {
            auto node = parcels.append_child("Parcel");
            node.append_attribute("name") = p.name.c_str();
            node.append_attribute("area") = formatExact(std::abs(geometry::signedArea(p.path))).c_str();
            writeGeometry(node, p.path);
        }
    }
    StringWriter writer;
    document.save(writer, " ", pugi::format_indent, pugi::encoding_utf8);
    return replaceFile(path, writer.text);
}

namespace {

void addSourceLine(const std::string& name, const linework::ResolvedLine& line, const objects::Source& source,
                   std::vector<XmlSurfaceLine>& out) {
    const bool boundary = objects::isRing(source.role);
    if (boundary) {
        const auto ring = derive::boundaryAlong(line, derive::breaklineSagitta);
        XmlSurfaceLine xml{name, {}, true, source.role, source.ownHeights && ring.hasHeights()};
        for (std::size_t i = 0; i < ring.ring.size(); ++i)
            xml.places.push_back({ring.ring[i].x, ring.ring[i].y, xml.withHeights ? *ring.heights[i] : 0.0});
        out.push_back(std::move(xml));
        return;
    }
    for (auto& run : runsWithHeights(line, derive::breaklineSagitta))
        out.push_back({name, std::move(run), false, source.role, true});
}

}  // namespace

namespace {

/// Unbroken stretches of the ground of a profile, within a tenth of a millimetre where it curves.
void addGrounds(const std::string& name, const std::vector<route::ProfilePoint>& ground,
                std::vector<XmlGround>& out) {
    bool open = false;
    for (const auto& p : route::straightened(ground, 1e-4)) {
        if (!p.height) {
            open = false;
            continue;
        }
        if (!open) out.push_back({name, {}});
        open = true;
        out.back().places.push_back({p.station, *p.height});
    }
}

void addSections(const derive::Derived& derived, const route::AlignmentGeometry& alignment, double interval,
                 const XmlSectionOptions& options, XmlAlignment& out) {
    std::vector<const terrain::TinLocator*> surfaces;
    std::vector<std::string> names;
    for (const auto& [id, surface] : derived.surfaces) {
        if (!surface->locator) continue;
        surfaces.push_back(surface->locator.get());
        names.push_back(derived.document.nameOf(id));
    }
    const auto sections =
        route::crossSections(alignment, interval, surfaces, {}, {options.left, options.right});
    if (!sections) return;
    for (const auto& section : *sections) {
        XmlCrossSection x{alignment.running(section.distance), {}};
        for (std::size_t k = 0; k < names.size(); ++k) {
            XmlCrossSection::Surface of{names[k], {}};
            for (const auto& p : section.surfaces[k])
                if (p.height) of.places.push_back({p.offset, *p.height});
            if (of.places.size() > 1) x.surfaces.push_back(std::move(of));
        }
        if (!x.surfaces.empty()) out.sections.push_back(std::move(x));
    }
}

XmlAlignment alignmentXml(const derive::Derived& derived, ObjectId id,
                          const route::AlignmentGeometry& alignment, const XmlSectionOptions& sections) {
    const auto& document = derived.document;
    XmlAlignment a{document.nameOf(id), alignment.stationing, alignment.path, {}};
    for (const auto profile : document.all<objects::Profile>()) {
        const auto* p = document.get<objects::Profile>(profile);
        if (p->alignment != id) continue;
        const auto* result = derive::Derived::in(derived.profiles, profile);
        if (!p->design.empty())
            a.profiles.push_back({document.nameOf(profile), derive::designOf(*p, result)});
        if (result != nullptr)
            addGrounds(p->across.empty() ? document.nameOf(p->ground) : document.nameOf(profile),
                       result->ground, a.grounds);
    }
    const bool profiled = !a.profiles.empty() || !a.grounds.empty();
    const double interval = sections.interval.value_or(
        profiled ? operations::markingOf(document, *document.get<objects::Alignment>(id)).small : 0);
    if (interval > 0 && !alignment.path.empty()) addSections(derived, alignment, interval, sections, a);
    return a;
}

}  // namespace

LandXml landXmlOf(const derive::Derived& derived, const XmlSectionOptions& sections) {
    LandXml out;
    std::set<ObjectId> held;
    const auto& document = derived.document;
    out.unit = document.settings().display.unit;
    for (const auto id : document.all<objects::Points>()) {
        const auto all = document.get<objects::Points>(id)->set.all();
        out.points.insert(out.points.end(), all.begin(), all.end());
    }
    for (const auto& [id, surface] : derived.surfaces)
        if (surface->locator) {
            out.surfaces.push_back({document.nameOf(id), surface->locator->tin(), {}});
            for (const auto& source :
                 derive::expandedSources(document, *document.get<objects::Surface>(id)->definition)) {
                const auto* line = derive::Derived::in(derived.lines, source.object);
                if (line == nullptr) continue;
                held.insert(source.object);
                addSourceLine(document.nameOf(source.object), *line, source, out.surfaces.back().lines);
            }
        }
    for (const auto& [id, alignment] : derived.alignments)
        out.alignments.push_back(alignmentXml(derived, id, *alignment, sections));
    for (const auto id : document.all<objects::Parcel>()) {
        const auto* parcel = document.get<objects::Parcel>(id);
        const auto line = derived.lines.find(parcel->line);
        if (line != derived.lines.end())
            out.parcels.push_back({document.nameOf(id), parcel->reversed
                                                            ? geometry::reversed(line->second->path)
                                                            : line->second->path});
    }
    const auto leave = [&](std::size_t count, const char* what) {
        if (count > 0) out.left.push_back(std::to_string(count) + " " + what);
    };
    leave(document.all<objects::Line>().size() - held.size(), "3D lines (their heights and rules)");
    std::size_t chorded = 0;
    for (const ObjectId id : held) {
        const auto* line = derive::Derived::in(derived.lines, id);
        if (line != nullptr && hasCurves(line->path)) ++chorded;
    }
    leave(chorded, "lines whose arcs became chords");
    leave(document.all<objects::Cloud>().size(), "point clouds");
    leave(document.all<objects::HeightRaster>().size(), "rasters");
    leave(document.all<objects::Backdrop>().size(), "backdrops");
    leave(document.all<objects::Label>().size(), "labels");
    leave(document.all<objects::Sheet>().size(), "sheets");
    leave(document.all<objects::Marking>().size(), "markings");
    leave(document.all<objects::Section>().size(), "kept sections");
    return out;
}

}  // namespace erdwerk::format
