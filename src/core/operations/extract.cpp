#include "core/operations/extract.h"

#include <algorithm>

#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/survey/points.h"
#include "core/terrain/contours.h"
#include "core/terrain/locator.h"

namespace erdwerk::operations {

using geometry::Vec2;
using geometry::Vec3;

namespace {

constexpr std::size_t mostObjects = 100'000;

/// A line to be made: places with heights.
struct Made {
    std::string name;
    std::vector<Vec3> places;
    bool closed = false;
};

Line lineOf(const Made& made) {
    std::vector<Vec2> corners;
    std::vector<std::optional<double>> heights;
    for (const Vec3& p : made.places) {
        corners.push_back(p.plan());
        heights.emplace_back(p.z);
    }
    return {linework::lineThrough(corners, heights, made.closed), LineStyle::Plain};
}

Result<std::vector<Made>> contourLines(const Derived& derived, ObjectId surface, const terrain::Tin& tin,
                                       const ExtractOptions& options) {
    const auto& style = derived.document.get<Surface>(surface)->style;
    const auto lines = terrain::contours(tin, {style.interval, style.smooth});
    if (!lines) return tl::unexpected(lines.error());
    std::vector<Made> out;
    for (const auto& c : *lines) {
        const bool listed = options.levels.empty() ||
                            std::any_of(options.levels.begin(), options.levels.end(), [&](double level) {
                                return std::abs(level - c.height) < 1e-6 * style.interval;
                            });
        if (!listed || c.height < options.lowest || c.height > options.highest || c.places.size() < 2 ||
            (options.indexOnly && !terrain::isIndexContour(c.height, style.interval, style.indexEvery)))
            continue;
        Made made{"Contour " + formatHeight(c.height, derived.document.settings().display), {}, c.closed};
        const std::size_t count = c.places.size() - (c.closed ? 1 : 0);
        if (c.closed && count < 3) continue;
        for (std::size_t i = 0; i < count; ++i)
            made.places.push_back({c.places[i].x, c.places[i].y, c.height});
        out.push_back(std::move(made));
    }
    return out;
}

std::vector<std::uint32_t> trianglesAt(const terrain::TinLocator& locator, const std::vector<Vec2>& picked) {
    std::vector<std::uint32_t> out;
    if (picked.empty()) {
        for (std::uint32_t t = 0; t < locator.tin().triangleCount(); ++t) out.push_back(t);
    } else {
        for (const Vec2 p : picked)
            if (const auto t = locator.triangleAt(p); t && std::find(out.begin(), out.end(), *t) == out.end())
                out.push_back(*t);
    }
    return out;
}

double meanSide(const terrain::Tin& tin) {
    double sum = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto c = tin.triangle(t);
        for (std::size_t i = 0; i < 3; ++i) sum += geometry::distance(c[i].plan(), c[(i + 1) % 3].plan());
    }
    return sum / (3.0 * std::max(1U, tin.triangleCount()));
}

std::vector<Made> arrows(const terrain::TinLocator& locator, const ExtractOptions& options,
                         const DisplaySettings& display) {
    std::vector<Made> out;
    const double length = options.arrowLength > 0 ? options.arrowLength : meanSide(locator.tin()) / 2;
    for (const std::uint32_t t : trianglesAt(locator, options.picked)) {
        const auto c = locator.tin().triangle(t);
        const auto slope = terrain::slopeOf(c);
        if (slope.grade < 0.001) continue;  // level ground falls nowhere
        const auto plane = [&](Vec2 p) { return Vec3{p.x, p.y, terrain::planeHeight(c, p)}; };
        const Vec2 middle{(c[0].x + c[1].x + c[2].x) / 3, (c[0].y + c[1].y + c[2].y) / 3};
        const Vec2 along = geometry::directionOf(slope.downhill) * (length / 2);
        const Vec2 side = geometry::leftOf(along) * 0.3;
        const Vec2 tip = middle + along;
        const Vec2 neck = middle + along * 0.45;
        out.push_back(
            {"Slope " + formatGrade(Grade::riseOverRun(slope.grade), display),
             {plane(middle - along), plane(tip), plane(neck + side), plane(tip), plane(neck - side)},
             false});
    }
    return out;
}

}  // namespace

std::string_view extractName(Extract what) {
    switch (what) {
        case Extract::Contours:
            return "contours";
        case Extract::Triangles:
            return "triangles";
        case Extract::Edge:
            return "edge";
        case Extract::Points:
            return "points";
        case Extract::SlopeArrows:
            break;
    }
    return "slope arrows";
}

namespace {

/// Lines and points of one kind of part; BadInput when there are too many.
Result<void> collect(const Derived& derived, ObjectId surface, const ExtractOptions& options,
                     std::vector<Made>& lines, std::vector<survey::SurveyPoint>& points) {
    const auto* locator = derived.surface(surface);
    if (locator == nullptr) return badInput("there is no surface to take this from");
    const auto& tin = locator->tin();
    switch (options.what) {
        case Extract::Contours: {
            auto found = contourLines(derived, surface, tin, options);
            if (!found) return tl::unexpected(found.error());
            lines = std::move(*found);
            break;
        }
        case Extract::Triangles:
            for (const std::uint32_t t : trianglesAt(*locator, options.picked)) {
                const auto c = tin.triangle(t);
                lines.push_back({"Triangle " + std::to_string(t + 1), {c.begin(), c.end()}, true});
                if (lines.size() > mostObjects) break;
            }
            break;
        case Extract::Edge:
            for (const auto& ring : terrain::rimRings(tin)) {
                Made made{"Edge " + std::to_string(lines.size() + 1), {}, true};
                for (const std::uint32_t v : ring) made.places.push_back(tin.vertex(v));
                lines.push_back(std::move(made));
            }
            break;
        case Extract::Points:
            for (std::size_t v = 0; v < tin.vertexCount(); ++v) {
                const Vec3& p = tin.vertices()[v];
                points.push_back({"S" + std::to_string(v + 1), p.plan(), p.z, "", ""});
            }
            break;
        case Extract::SlopeArrows:
            lines = arrows(*locator, options, derived.document.settings().display);
            break;
    }
    if (lines.empty() && points.empty()) return badInput("the surface has none of these");
    if (lines.size() > mostObjects)
        return badInput("these would be more than " + std::to_string(mostObjects) +
                        " objects; pick some, or write them to a file");
    return {};
}

}  // namespace

Result<Parts> partsOf(const Derived& derived, ObjectId surface, const ExtractOptions& options) {
    std::vector<Made> lines;
    std::vector<survey::SurveyPoint> points;
    if (auto done = collect(derived, surface, options, lines, points); !done)
        return tl::unexpected(done.error());
    std::string title(extractName(options.what));
    title.front() = static_cast<char>(title.front() - 'a' + 'A');
    Parts out;
    out.group = options.group.empty() ? title + " of " + derived.document.nameOf(surface) : options.group;
    out.objects.reserve(lines.size() + 1);
    for (const Made& made : lines) out.objects.push_back({made.name, lineOf(made), {}});
    if (!points.empty()) out.objects.push_back({out.group, Points{survey::PointSet(std::move(points))}, {}});
    return out;
}

Extracted withParts(const Document& document, Parts parts) {
    Extracted out{document, parts.objects.size(), document.byName<Group>(parts.group)};
    if (!out.group) out.document = out.document.added(parts.group, Group{"#3F5C73"}, &out.group);
    for (NewObject& o : parts.objects) o.group = out.group;
    out.document = out.document.addedAll(std::move(parts.objects));
    return out;
}

Result<Extracted> extractFrom(const Derived& derived, ObjectId surface, const ExtractOptions& options) {
    auto parts = partsOf(derived, surface, options);
    if (!parts) return tl::unexpected(parts.error());
    return withParts(derived.document, std::move(*parts));
}

}  // namespace erdwerk::operations
