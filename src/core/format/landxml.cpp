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
#include "core/document/edge.h"
#include "core/document/surface_build.h"
#include "core/format/output.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using geometry::Vec2;
using geometry::Vec3;

namespace {

// ---- writing

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

void writeGeometry(pugi::xml_node parent, const geometry::Path& path) {
    auto geometry = parent.append_child("CoordGeom");
    for (const auto& s : path) {
        const auto arc = arcOf(s);
        auto node = geometry.append_child(arc ? "Curve" : "Line");
        if (arc) {
            node.append_attribute("rot") = arc->right() ? "cw" : "ccw";
            node.append_attribute("radius") = formatExact(arc->radius).c_str();
            node.append_attribute("length") = formatExact(lengthOf(s)).c_str();
        } else {
            node.append_attribute("length") = formatExact(lengthOf(s)).c_str();
        }
        node.append_child("Start").text() = northEast(s.start).c_str();
        if (arc) node.append_child("Center").text() = northEast(arc->centre).c_str();
        node.append_child("End").text() = northEast(s.end).c_str();
    }
}

void writeProfiles(pugi::xml_node node, const XmlAlignment& alignment) {
    if (alignment.profiles.empty()) return;
    auto parent = node.append_child("Profile");
    parent.append_attribute("name") = alignment.name.c_str();
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

/// outer, void or island, as the standard has it.
const char* boundaryType(document::Role role) {
    return role == document::Role::Edge ? "outer" : (role == document::Role::Opening ? "void" : "island");
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
            const bool boundary = line.role == document::Role::Edge || line.role == document::Role::Opening ||
                                  line.role == document::Role::Island;
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
        for (const auto& a : content.alignments) {
            auto node = alignments.append_child("Alignment");
            node.append_attribute("name") = a.name.c_str();
            node.append_attribute("length") = formatExact(geometry::lengthOf(a.path)).c_str();
            node.append_attribute("staStart") = formatExact(a.startStation).c_str();
            writeGeometry(node, a.path);
            writeProfiles(node, a);
        }
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

// ---- reading

namespace {

class Reader {
public:
    Reader(std::string path, const std::string& text) : path_(std::move(path)), text_(text) {}

    Result<LandXml> run() {
        pugi::xml_document document;
        const auto parsed = document.load_buffer(text_.data(), text_.size());
        if (!parsed)
            return badInput(std::string("is not well-formed XML: ") + parsed.description(), path_,
                            lineAt(parsed.offset));
        const auto root = document.child("LandXML");
        if (!root) return badInput("is not a LandXML file", path_, 1);
        try {
            units(root);
            points(root);
            for (const auto s : root.child("Surfaces").children("Surface")) surface(s);
            for (const auto a : root.child("Alignments").children("Alignment")) alignment(a);
            for (const auto p : root.child("Parcels").children("Parcel"))
                out_.parcels.push_back({p.attribute("name").as_string(), path(p.child("CoordGeom"))});
        } catch (const Error& error) {
            return tl::unexpected(error);
        }
        return std::move(out_);
    }

private:
    [[nodiscard]] long lineAt(std::ptrdiff_t offset) const {
        const auto end = std::clamp<std::ptrdiff_t>(offset, 0, static_cast<std::ptrdiff_t>(text_.size()));
        return 1 + std::count(text_.begin(), text_.begin() + end, '\n');
    }

    [[noreturn]] void bad(pugi::xml_node at, const std::string& reason) const {
        throw Error{ErrorCode::BadInput, reason, path_, lineAt(at.offset_debug())};
    }

    [[nodiscard]] std::vector<double> numbers(pugi::xml_node node, std::size_t least,
                                              std::size_t most) const {
        std::istringstream words(node.text().get());
        std::vector<double> out;
        std::string word;
        while (words >> word) {
            const auto value = parseNumber(word);
            if (!value || std::abs(*value) > 1e12)
                bad(node, "'" + word.substr(0, 40) + "' is not a number in range");
            out.push_back(*value);
        }
        if (out.size() < least || out.size() > most)
            bad(node, std::string(node.name()) + " needs " + std::to_string(least) + " numbers");
        return out;
    }

    [[nodiscard]] double attribute(pugi::xml_node node, const char* name, double fallback) const {
        const auto a = node.attribute(name);
        if (!a) return fallback;
        const auto value = parseNumber(a.as_string());
        if (!value) bad(node, std::string(name) + " is not a number");
        return *value;
    }

    void units(pugi::xml_node root) {
        const std::string linear =
            root.child("Units").first_child().attribute("linearUnit").as_string("meter");
        if (linear == "foot")
            out_.unit = LengthUnit::InternationalFoot;
        else if (linear == "USSurveyFoot")
            out_.unit = LengthUnit::UsSurveyFoot;
        else if (linear != "meter")
            bad(root.child("Units"), "linear unit " + linear + " is not read");
    }

    void points(pugi::xml_node root) {
        for (const auto group : root.children("CgPoints")) {
            for (const auto node : group.children("CgPoint")) {
                if (node.text().empty()) {
                    out_.left.push_back("point reference " +
                                        std::string(node.attribute("pntRef").as_string()));
                    continue;
                }
                const auto v = numbers(node, 2, 3);
                survey::SurveyPoint p{node.attribute("name").as_string(),
                                      {v[1], v[0]},
                                      std::nullopt,
                                      node.attribute("code").as_string(),
                                      node.attribute("desc").as_string()};
                if (v.size() == 3) p.height = v[2];
                byName_[p.number] = p.plan;
                out_.points.push_back(std::move(p));
            }
        }
    }

    void surface(pugi::xml_node node) {
        const auto definition = node.child("Definition");
        std::vector<Vec3> vertices;
        std::map<std::string, std::uint32_t> index;
        for (const auto p : definition.child("Pnts").children("P")) {
            const auto v = numbers(p, 3, 3);
            index[p.attribute("id").as_string()] = static_cast<std::uint32_t>(vertices.size());
            vertices.push_back({v[1], v[0], v[2]});
        }
        std::vector<std::uint32_t> corners;
        for (const auto f : definition.child("Faces").children("F")) {
            if (f.attribute("i").as_int() == 1) continue;  // marked invisible
            std::istringstream words(f.text().get());
            std::string word;
            int count = 0;
            while (words >> word) {
                const auto it = index.find(word);
                if (it == index.end())
                    bad(f, "the face names point " + word.substr(0, 40) + ", which is not there");
                corners.push_back(it->second);
                ++count;
            }
            if (count != 3) bad(f, "a face needs three points");
        }
        const std::string name = node.attribute("name").as_string("Surface");
        auto lines = sourceLines(node);
        if (corners.empty()) {
            out_.left.push_back("surface " + name + ": no faces");
            return;
        }
        auto tin = surfaceFromTriangles(std::move(vertices), std::move(corners), path_);
        if (!tin) bad(node, "surface " + name + ": " + tin.error().text);
        out_.surfaces.push_back({name, std::move(*tin), std::move(lines)});
    }

    [[nodiscard]] XmlSurfaceLine sourceLine(pugi::xml_node node, document::Role role) const {
        XmlSurfaceLine line{node.attribute("name").as_string(), {}, false, role, true};
        auto list = node.child("PntList3D");
        line.withHeights = static_cast<bool>(list);
        if (!list) list = node.child("PntList2D");
        const std::size_t each = line.withHeights ? 3 : 2;
        const auto v =
            list ? numbers(list, 2 * each, std::numeric_limits<std::size_t>::max()) : std::vector<double>{};
        if (v.size() % each != 0)
            bad(list, "a list of places needs " + std::to_string(each) + " numbers each");
        for (std::size_t i = 0; i < v.size(); i += each)
            line.places.push_back({v[i + 1], v[i], line.withHeights ? v[i + 2] : 0.0});
        if (line.places.size() > 3 && line.places.front() == line.places.back()) {
            line.places.pop_back();
            line.closed = true;
        }
        if (role != document::Role::Breakline) line.closed = line.places.size() > 2;
        return line;
    }

    [[nodiscard]] std::vector<XmlSurfaceLine> sourceLines(pugi::xml_node surface) {
        std::vector<XmlSurfaceLine> out;
        for (const auto data : surface.children("SourceData")) {
            for (const auto node : data.child("Boundaries").children("Boundary")) {
                const std::string type = node.attribute("bndType").as_string();
                out.push_back(sourceLine(node, type == "void"     ? document::Role::Opening
                                               : type == "island" ? document::Role::Island
                                                                  : document::Role::Edge));
            }
            for (const auto node : data.child("Breaklines").children("Breakline"))
                out.push_back(sourceLine(node, document::Role::Breakline));
        }
        std::erase_if(out, [&](const XmlSurfaceLine& line) {
            if (line.places.size() > 1) return false;
            out_.left.push_back("a line of surface " + std::string(surface.attribute("name").as_string()) +
                                ": no list of places");
            return true;
        });
        return out;
    }

    [[nodiscard]] Vec2 place(pugi::xml_node node, pugi::xml_node segment) const {
        if (!node) bad(segment, std::string(segment.name()) + " lacks a point");
        if (const auto ref = node.attribute("pntRef")) {
            const auto it = byName_.find(ref.as_string());
            if (it == byName_.end()) bad(node, std::string("point ") + ref.as_string() + " is not there");
            return it->second;
        }
        const auto v = numbers(node, 2, 3);
        return {v[1], v[0]};
    }

    geometry::Path path(pugi::xml_node geometry) {
        geometry::Path out;
        for (const auto node : geometry.children()) {
            const std::string kind = node.name();
            if (kind == "Line") {
                out.push_back(
                    {place(node.child("Start"), node), place(node.child("End"), node), std::nullopt});
            } else if (kind == "Curve") {
                const Vec2 start = place(node.child("Start"), node);
                const Vec2 end = place(node.child("End"), node);
                const Vec2 centre = place(node.child("Center"), node);
                const bool right = std::string(node.attribute("rot").as_string()) == "cw";
                geometry::Arc arc{
                    centre, geometry::distance(centre, start), geometry::azimuth(centre, start), {}};
                double sweep = (geometry::azimuth(centre, end) - arc.startAzimuth).normalized().radians();
                if (!right) sweep -= 2 * std::numbers::pi;
                arc.sweep = Angle::radians(sweep);
                out.push_back({start, end, arc.at(0.5)});
            } else if (node.type() == pugi::node_element) {
                out_.left.push_back(kind + " in " + geometry.parent().attribute("name").as_string());
            }
        }
        return out;
    }

    void alignment(pugi::xml_node node) {
        XmlAlignment a{node.attribute("name").as_string("Alignment"),
                       attribute(node, "staStart", 0),
                       path(node.child("CoordGeom")),
                       {}};
        for (const auto parent : node.children("Profile")) {
            for (const auto design : parent.children("ProfAlign")) {
                XmlProfile profile{design.attribute("name").as_string("Profile"), {}};
                for (const auto pvi : design.children()) {
                    const std::string kind = pvi.name();
                    if (kind != "PVI" && kind != "ParaCurve") {
                        if (pvi.type() == pugi::node_element)
                            out_.left.push_back(kind + " in profile " + profile.name);
                        continue;
                    }
                    const auto v = numbers(pvi, 2, 2);
                    profile.design.push_back(
                        {v[0], v[1], kind == "ParaCurve" ? attribute(pvi, "length", 0) : 0});
                }
                if (!profile.design.empty()) a.profiles.push_back(std::move(profile));
            }
        }
        if (a.path.empty())
            out_.left.push_back("alignment " + a.name + ": no lines or curves");
        else
            out_.alignments.push_back(std::move(a));
    }

    std::string path_;
    const std::string& text_;
    std::map<std::string, Vec2> byName_;
    LandXml out_;
};

}  // namespace

Result<LandXml> readLandXml(const std::string& path) {
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    return Reader(path, *text).run();
}

namespace {

void addSourceLine(const std::string& name, const linework::ResolvedLine& line,
                   const document::Source& source, std::vector<XmlSurfaceLine>& out) {
    const bool boundary = source.role == document::Role::Edge || source.role == document::Role::Opening ||
                          source.role == document::Role::Island;
    if (boundary) {
        const auto ring = document::boundaryAlong(line, document::breaklineSagitta);
        XmlSurfaceLine xml{name, {}, true, source.role, source.ownHeights && ring.hasHeights()};
        for (std::size_t i = 0; i < ring.ring.size(); ++i)
            xml.places.push_back({ring.ring[i].x, ring.ring[i].y, xml.withHeights ? *ring.heights[i] : 0.0});
        out.push_back(std::move(xml));
        return;
    }
    for (auto& run : runsWithHeights(line, document::breaklineSagitta))
        out.push_back({name, std::move(run), false, source.role, true});
}

}  // namespace

LandXml landXmlOf(const document::Derived& derived) {
    LandXml out;
    std::set<ObjectId> held;
    const auto& document = derived.document;
    out.unit = document.settings().display.unit;
    for (const auto id : document.all<document::Points>()) {
        const auto all = document.get<document::Points>(id)->set.all();
        out.points.insert(out.points.end(), all.begin(), all.end());
    }
    for (const auto& [id, surface] : derived.surfaces)
        if (surface->locator) {
            out.surfaces.push_back({document.nameOf(id), surface->locator->tin(), {}});
            for (const auto& source :
                 expandedSources(document, *document.get<document::Surface>(id)->definition)) {
                const auto* line = document::Derived::in(derived.lines, source.object);
                if (line == nullptr) continue;
                held.insert(source.object);
                addSourceLine(document.nameOf(source.object), *line, source, out.surfaces.back().lines);
            }
        }
    for (const auto& [id, alignment] : derived.alignments) {
        XmlAlignment a{document.nameOf(id), alignment->startStation, alignment->path, {}};
        for (const auto profile : document.all<document::Profile>()) {
            const auto* p = document.get<document::Profile>(profile);
            if (p->alignment == id && !p->design.empty())
                a.profiles.push_back({document.nameOf(profile), p->design});
        }
        out.alignments.push_back(std::move(a));
    }
    for (const auto id : document.all<document::Parcel>()) {
        const auto* parcel = document.get<document::Parcel>(id);
        const auto line = derived.lines.find(parcel->line);
        if (line != derived.lines.end())
            out.parcels.push_back({document.nameOf(id), parcel->reversed
                                                            ? geometry::reversed(line->second->path)
                                                            : line->second->path});
    }
    const auto leave = [&](std::size_t count, const char* what) {
        if (count > 0) out.left.push_back(std::to_string(count) + " " + what);
    };
    leave(document.all<document::Line>().size() - held.size(), "3D lines (their heights and rules)");
    leave(document.all<document::Label>().size(), "labels");
    leave(document.all<document::Sheet>().size(), "sheets");
    return out;
}

}  // namespace erdwerk::format
