// Reading LandXML.

#include <algorithm>
#include <cmath>
#include <limits>
#include <map>
#include <pugixml.hpp>
#include <sstream>

#include "core/base/notation.h"
#include "core/base/thrown.h"
#include "core/format/landxml.h"
#include "core/format/output.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using geometry::Vec2;
using geometry::Vec3;

namespace {

class Reader {
public:
    Reader(std::string path, const std::string& text, const Context& context)
        : path_(std::move(path)), text_(text), context_(context) {}

    Result<LandXml> run() {
        pugi::xml_document document;
        const auto parsed = document.load_buffer(text_.data(), text_.size());
        if (!parsed)
            return badInput(std::string("is not well-formed XML: ") + parsed.description(), path_,
                            lineAt(parsed.offset));
        const auto root = document.child("LandXML");
        if (!root) return badInput("is not a LandXML file", path_, 1);
        const auto read = caught(
            [&] {
                units(root);
                points(root);
                for (const auto s : root.child("Surfaces").children("Surface")) surface(s);
                for (const auto a : root.child("Alignments").children("Alignment")) alignment(a);
                for (const auto p : root.child("Parcels").children("Parcel"))
                    out_.parcels.push_back({p.attribute("name").as_string(), path(p.child("CoordGeom"))});
            },
            path_);
        if (!read) return tl::unexpected(read.error());
        return std::move(out_);
    }

private:
    [[nodiscard]] long lineAt(std::ptrdiff_t offset) const {
        const auto end = std::clamp<std::ptrdiff_t>(offset, 0, static_cast<std::ptrdiff_t>(text_.size()));
        return 1 + std::count(text_.begin(), text_.begin() + end, '\n');
    }

    [[noreturn]] void bad(pugi::xml_node at, const std::string& reason) const {
        throw Thrown({ErrorCode::BadInput, reason, path_, lineAt(at.offset_debug())});
    }

    /// To be called for what a file has many of.
    void at(pugi::xml_node node) {
        if (++seen_ % 1024 != 0) return;
        if (context_.isCancelled()) throw Thrown(cancelled().value());
        context_.report(static_cast<double>(node.offset_debug()) / static_cast<double>(text_.size()));
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
                at(node);
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
            at(p);
            const auto v = numbers(p, 3, 3);
            index[p.attribute("id").as_string()] = static_cast<std::uint32_t>(vertices.size());
            vertices.push_back({v[1], v[0], v[2]});
        }
        std::vector<std::uint32_t> corners;
        for (const auto f : definition.child("Faces").children("F")) {
            at(f);
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

    [[nodiscard]] XmlSurfaceLine sourceLine(pugi::xml_node node, objects::Role role) const {
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
        if (role != objects::Role::Breakline) line.closed = line.places.size() > 2;
        return line;
    }

    [[nodiscard]] std::vector<XmlSurfaceLine> sourceLines(pugi::xml_node surface) {
        std::vector<XmlSurfaceLine> out;
        for (const auto data : surface.children("SourceData")) {
            for (const auto node : data.child("Boundaries").children("Boundary")) {
                const std::string type = node.attribute("bndType").as_string();
                out.push_back(sourceLine(node, type == "void"     ? objects::Role::Opening
                                               : type == "island" ? objects::Role::Island
                                                                  : objects::Role::Edge));
            }
            for (const auto node : data.child("Breaklines").children("Breakline"))
                out.push_back(sourceLine(node, objects::Role::Breakline));
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

    /// 0 for INF.
    [[nodiscard]] double curvature(pugi::xml_node node, const char* name) const {
        const std::string text = node.attribute(name).as_string();
        if (text == "INF" || text == "inf" || text == "Infinity") return 0;
        const double radius = attribute(node, name, 0);
        if (!(radius > 0)) bad(node, std::string(name) + " is a radius above 0, or INF");
        return 1 / radius;
    }

    std::optional<geometry::Segment> spiral(pugi::xml_node node) {
        const std::string type = node.attribute("spiType").as_string("clothoid");
        if (type != "clothoid") {
            out_.left.push_back("a spiral of type " + type);
            return std::nullopt;
        }
        const double side = std::string(node.attribute("rot").as_string()) == "cw" ? 1 : -1;
        const double length = attribute(node, "length", 0);
        if (!(length > 0)) bad(node, "a spiral has a length above 0");
        return geometry::Segment{place(node.child("Start"), node), place(node.child("End"), node),
                                 std::nullopt,
                                 geometry::Spiral{side * curvature(node, "radiusStart"),
                                                  side * curvature(node, "radiusEnd"), length}};
    }

    /// Where the numbering jumps.
    route::Stationing stationing(pugi::xml_node alignment) {
        const double start = attribute(alignment, "staStart", 0);
        std::vector<route::StationEquation> equations;
        for (const auto node : alignment.children("StaEquation")) {
            if (!node.attribute("staBack") || !node.attribute("staAhead"))
                bad(node, "needs staBack and staAhead");
            equations.push_back({attribute(node, "staBack", 0), attribute(node, "staAhead", 0)});
        }
        auto out = route::Stationing::withEquations(start, std::move(equations));
        if (!out) bad(alignment, out.error().text);
        return std::move(*out);
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
                    centre, geometry::distance(centre, start), geometry::azimuth(centre, start), {}, start,
                    end};
                double sweep = (geometry::azimuth(centre, end) - arc.startAzimuth).normalized().radians();
                if (!right) sweep -= 2 * std::numbers::pi;
                arc.sweep = Angle::radians(sweep);
                out.push_back({start, end, arc.at(0.5)});
            } else if (kind == "Spiral") {
                if (auto segment = spiral(node)) out.push_back(*segment);
            } else if (node.type() == pugi::node_element) {
                out_.left.push_back(kind + " in " + geometry.parent().attribute("name").as_string());
            }
        }
        return out;
    }

    std::vector<Vec2> pairs(pugi::xml_node list) {
        const auto v = numbers(list, 2, std::numeric_limits<std::size_t>::max());
        if (v.size() % 2 != 0) bad(list, "holds an odd count of figures");
        std::vector<Vec2> out;
        out.reserve(v.size() / 2);
        for (std::size_t k = 0; k + 1 < v.size(); k += 2) out.push_back({v[k], v[k + 1]});
        return out;
    }

    void crossSection(pugi::xml_node node, XmlAlignment& a) {
        if (!node.attribute("sta")) bad(node, "needs sta");
        XmlCrossSection section{attribute(node, "sta", 0), {}};
        for (const auto surface : node.children("CrossSectSurf"))
            for (const auto list : surface.children("PntList2D"))
                section.surfaces.push_back({surface.attribute("name").as_string("Ground"), pairs(list)});
        if (!section.surfaces.empty()) a.sections.push_back(std::move(section));
    }

    void alignment(pugi::xml_node node) {
        XmlAlignment a{node.attribute("name").as_string("Alignment"),
                       stationing(node),
                       path(node.child("CoordGeom")),
                       {}};
        for (const auto parent : node.children("CrossSects"))
            for (const auto section : parent.children("CrossSect")) crossSection(section, a);
        for (const auto parent : node.children("Profile")) {
            for (const auto ground : parent.children("ProfSurf"))
                for (const auto list : ground.children("PntList2D"))
                    a.grounds.push_back({ground.attribute("name").as_string("Ground"), pairs(list)});
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
    const Context& context_;
    std::size_t seen_ = 0;
    std::map<std::string, Vec2> byName_;
    LandXml out_;
};

}  // namespace

Result<LandXml> readLandXml(const std::string& path, const Context& context) {
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    return Reader(path, *text, context).run();
}

}  // namespace erdwerk::format
