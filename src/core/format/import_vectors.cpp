// What vector files hold, into a document: lines with their rules, points, and layers of triangles.

#include <algorithm>
#include <array>
#include <limits>
#include <map>
#include <set>

#include "core/format/import.h"
#include "core/format/ply.h"
#include "core/linework/chorded_arcs.h"
#include "core/linework/give_heights.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "core/operations/plan_shape.h"
#include "core/operations/with.h"

namespace erdwerk::format {

using document::Document;

namespace {

/// The three corners of a triangle with heights, else nothing.
std::optional<std::array<geometry::Vec3, 3>> triangleOf(const VectorLine& line) {
    const auto& v = line.line.vertices;
    if (!line.polygon || !line.line.closed || v.size() != 3) return std::nullopt;
    std::array<geometry::Vec3, 3> out;
    for (std::size_t i = 0; i < 3; ++i) {
        const auto* height = std::get_if<linework::FixedHeight>(&v[i].rule);
        if (height == nullptr || v[i].through) return std::nullopt;
        out[i] = {v[i].place.x, v[i].place.y, height->height};
    }
    return out;
}

/// Triangles in 3D become corners of one surface: equal places are one vertex.
class TriangleSoup {
public:
    void add(const std::array<geometry::Vec3, 3>& triangle) {
        for (const auto& p : triangle) {
            const auto [it, fresh] =
                index_.try_emplace({p.x, p.y, p.z}, static_cast<std::uint32_t>(vertices_.size()));
            if (fresh) vertices_.push_back(p);
            corners_.push_back(it->second);
        }
    }
    [[nodiscard]] Result<terrain::Tin> surface(const std::string& path) && {
        return surfaceFromTriangles(std::move(vertices_), std::move(corners_), path);
    }

private:
    std::map<std::array<double, 3>, std::uint32_t> index_;
    std::vector<geometry::Vec3> vertices_;
    std::vector<std::uint32_t> corners_;
};

/// Layers in which everything is a triangle with heights are surfaces, one for each name that repeats (or one
/// for the layer). Takes their lines out of `lines`.
Document addTriangleLayers(Document document, const std::string& path, std::vector<VectorLine>& lines) {
    std::map<std::string, std::map<std::string, std::size_t>> names;
    std::set<std::string> others;
    for (const auto& line : lines) {
        ++names[line.layer][line.name];
        if (!triangleOf(line)) others.insert(line.layer);
    }
    for (const auto& [layer, counts] : names) {
        std::size_t all = 0;
        for (const auto& [name, count] : counts) all += count;
        if (others.count(layer) != 0 || all < 2) continue;
        const bool byName = counts.size() < all;
        std::map<std::string, TriangleSoup> soups;
        for (const auto& line : lines)
            if (line.layer == layer) soups[byName ? line.name : layer].add(*triangleOf(line));
        Document next = document;
        bool good = true;
        for (auto& [name, soup] : soups) {
            auto tin = std::move(soup).surface(path);
            good = good && tin.has_value();
            if (!good) break;
            objects::SurfaceDefinition definition;
            definition.imported = std::make_shared<const terrain::Tin>(std::move(*tin));
            next = next.added(
                name, objects::Surface{
                          std::make_shared<const objects::SurfaceDefinition>(std::move(definition)), {}, {}});
        }
        if (!good) continue;  // they overlap: then they are just lines
        document = std::move(next);
        std::erase_if(lines, [&, l = layer](const VectorLine& line) { return line.layer == l; });
    }
    return document;
}

}  // namespace

namespace {

/// Gives lines that came in the rules of their features.
Result<void> addRules(Imported& out, const std::vector<VectorLine>& lines, const std::vector<ObjectId>& ids) {
    const Document before = out.document;
    std::vector<std::string> unknown;
    auto names = operations::namesIn(before);
    names.lineNamed = [&](const std::string& name) {
        for (std::size_t i = 0; i < lines.size(); ++i)
            if (lines[i].name == name) return ids[i];
        if (const ObjectId id = before.byName<objects::Line>(name)) return id;
        unknown.push_back(name);
        return ObjectId{std::numeric_limits<std::uint64_t>::max()};
    };
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (lines[i].rules.empty()) continue;
        unknown.clear();
        auto ruled = linework::withRules(lines[i].line, lines[i].rules, names);
        if (!ruled) return badInput(lines[i].where + ": " + ruled.error().text, lines[i].file, 1);
        for (auto& v : ruled->vertices)
            linework::references(v.rule, [&](ObjectId named) {
                if (named.value != std::numeric_limits<std::uint64_t>::max()) return;
                v.rule = linework::NoHeight{};
                v.curve.reset();
            });
        for (const auto& name : unknown)
            out.left.push_back(lines[i].where + ": heights from '" + name + "', which is not there");
        const auto style = out.document.get<objects::Line>(ids[i])->style;
        out.document = out.document.withPayload(ids[i], objects::Line{std::move(*ruled), style});
    }
    return {};
}

}  // namespace

namespace {

/// What is drawn in plan has the height 0 in many files: that is none. Says which lines those were.
std::vector<bool> takeZeroAway(VectorContent& content, Imported& out) {
    std::vector<bool> taken;
    for (auto& line : content.lines) {
        taken.push_back(line.rules.empty() && linework::isLevelAt(line.line, 0));
        if (taken.back()) line.line = linework::withoutHeights(line.line);
    }
    const auto atZero = [](const survey::SurveyPoint& p) { return p.height && *p.height == 0; };
    const bool all = std::all_of(content.points.begin(), content.points.end(), atZero);
    for (auto& p : content.points) {
        if (!atZero(p) || (!all && p.note.empty())) continue;
        p.height.reset();
        ++out.textsAtNothing;
    }
    return taken;
}

}  // namespace

Result<Imported> addVectorContent(const Document& document, const std::string& path,
                                  const VectorContent& given, bool keepZero) {
    Imported out;
    VectorContent content = given;
    out.document = addTriangleLayers(document, path, content.lines);
    out.left = content.left;
    std::vector<bool> taken;
    if (!keepZero) taken = takeZeroAway(content, out);
    std::set<std::string> layers;
    for (const auto& line : content.lines) layers.insert(line.layer);
    std::vector<document::NewObject> made;
    for (const auto& line : content.lines) {
        ObjectId group;
        if (layers.size() > 1) {
            group = out.document.byName<objects::Group>(line.layer);
            if (!group) out.document = out.document.added(line.layer, objects::Group{"#3F5C73"}, &group);
        }
        made.push_back({line.name, objects::Line{line.line, {}}, group});
    }
    const auto linesBefore = out.document.all<objects::Line>();
    out.document = out.document.addedAll(std::move(made));
    auto ids = out.document.all<objects::Line>();
    ids.erase(ids.begin(), ids.begin() + static_cast<std::ptrdiff_t>(linesBefore.size()));
    if (auto done = addRules(out, content.lines, ids); !done) return tl::unexpected(done.error());
    const double rounding = operations::roundingOf(document);
    for (std::size_t i = 0; i < ids.size(); ++i) {
        if (!taken.empty() && taken[i]) out.flat.push_back(ids[i]);
        out.chordedArcs += linework::chordedArcs(content.lines[i].line, rounding).size();
    }
    out.lines = content.lines.size();
    out.points = content.points.size();
    if (!content.points.empty())
        out.document = operations::withPointsIn(out.document, stemOf(path), content.points);
    return out;
}

}  // namespace erdwerk::format
