#include "core/format/import.h"

#include "core/format/formats.h"

#include <algorithm>
#include <array>
#include <filesystem>
#include <map>
#include <set>

#include "core/base/notation.h"
#include "core/derive/surface_result.h"
#include "core/format/attached.h"
#include "core/format/cloud_file.h"
#include "core/format/mesh_file.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/format/project_layers.h"
#include "core/format/raster_file.h"
#include "core/objects/alignment.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/with.h"
#include "core/route/pis.h"
#include "core/terrain/sampling.h"

namespace erdwerk::format {

using document::Document;

std::string stemOf(const std::string& path) {
    return std::filesystem::path(path).stem().string();
}

namespace {

Document addLine(const Document& document, const std::string& name, linework::Line3D line,
                 ObjectId* id = nullptr, ObjectId group = {}) {
    return document.added(name, objects::Line{std::move(line), {}}, id, group);
}

}  // namespace

Imported addPoints(const Document& document, const std::string& path, CsvPoints points) {
    Imported out;
    out.points = points.points.size();
    out.skipped = std::move(points.skipped);
    out.document = points.points.empty()
                       ? document
                       : operations::withPointsIn(document, stemOf(path), std::move(points.points));
    return out;
}

namespace {

/// A corner for each segment's start, arcs with their through-point; closed when the path is.
linework::Line3D lineOf(const geometry::Path& path) {
    linework::Line3D line;
    for (const auto& s : path) {
        linework::LineVertex v;
        v.place = s.start;
        v.through = s.through;
        line.vertices.push_back(v);
    }
    if (path.empty()) return line;
    line.closed = path.size() > 2 && geometry::distance(path.back().end, path.front().start) < 1e-9;
    if (!line.closed) {
        linework::LineVertex end;
        end.place = path.back().end;
        line.vertices.push_back(end);
    }
    return line;
}

geometry::Path scaled(geometry::Path path, double by) {
    for (auto& s : path) {
        s.start = s.start * by;
        s.end = s.end * by;
        if (s.through) s.through = *s.through * by;
        if (s.spiral)
            s.spiral = geometry::Spiral{s.spiral->startCurvature / by, s.spiral->endCurvature / by,
                                        s.spiral->length * by};
    }
    return path;
}

/// Vertices through a change of unit; the same surface when the unit is the same.
terrain::Tin scaled(const terrain::Tin& tin, double by) {
    if (by == 1.0) return tin;
    std::vector<geometry::Vec3> vertices(tin.vertices().begin(), tin.vertices().end());
    for (auto& v : vertices) v = {v.x * by, v.y * by, v.z * by};
    return terrain::Tin(std::move(vertices),
                        std::vector<std::uint32_t>(tin.corners().begin(), tin.corners().end()));
}

Result<void> addXmlSurface(Imported& out, const XmlSurface& s, double by, const std::string& path) {
    objects::SurfaceDefinition definition;
    definition.imported = std::make_shared<const terrain::Tin>(scaled(s.tin, by));
    out.document = out.document.added(
        s.name,
        objects::Surface{std::make_shared<const objects::SurfaceDefinition>(std::move(definition)), {}, {}});
    if (s.lines.empty()) return {};
    ObjectId group;
    out.document = out.document.added("Lines of " + s.name, objects::Group{"#3F5C73"}, &group);
    for (const auto& line : s.lines) {
        std::vector<geometry::Vec2> corners;
        std::vector<std::optional<double>> heights;
        for (const auto& p : line.places) {
            corners.push_back(p.plan() * by);
            heights.push_back(line.withHeights ? std::optional(p.z * by) : std::nullopt);
        }
        auto value = linework::lineThrough(corners, heights, line.closed);
        if (const auto problem = validate(value))
            return badInput("a line of surface " + s.name + ": " + *problem, path);
        const std::string name = line.name.empty() ? document::freshName<objects::Line>(
                                                         out.document, std::string(roleName(line.role)))
                                                   : line.name;
        out.document = out.document.added(name, objects::Line{std::move(value), objects::LineStyle::Plain},
                                          nullptr, group);
        ++out.lines;
    }
    return {};
}

Result<void> addXmlAlignment(Imported& out, const XmlAlignment& a, double by, const std::string& path) {
    ObjectId alignment;
    objects::Alignment made;
    made.startStation = a.stationing.start() * by;
    for (const auto& e : a.stationing.equations()) made.equations.push_back({e.back * by, e.ahead * by});
    made.elements = scaled(a.path, by);
    for (std::size_t i = 1; i < made.elements.size(); ++i)
        if (geometry::distance(made.elements[i - 1].end, made.elements[i].start) > 1e-3)
            return badInput("alignment " + a.name + ": element " + std::to_string(i + 1) +
                                " does not begin where the one before ends",
                            path);
    // By its PIs it is easier to change.
    if (auto pis = route::pisOf(made.elements)) {
        made.pis = std::move(*pis);
        made.elements.clear();
    }
    out.document = out.document.added(a.name, std::move(made), &alignment);
    for (const auto& p : a.profiles) {
        auto design = p.design;
        for (auto& pvi : design) pvi = {pvi.station * by, pvi.height * by, pvi.curveLength * by};
        out.document = out.document.added(p.name, objects::Profile{alignment, {}, std::move(design), 5});
    }
    // A project has them from its surfaces.
    const auto passed = [&](std::size_t count, const char* what) {
        if (count > 0) out.left.push_back(std::to_string(count) + " " + what + " of alignment " + a.name);
    };
    passed(a.grounds.size(), "ground profiles");
    passed(a.sections.size(), "cross-sections");
    return {};
}

Result<void> addXmlParcel(Imported& out, const XmlParcel& p, double by, const std::string& path) {
    ObjectId line;
    auto value = lineOf(scaled(p.path, by));
    if (const auto problem = validate(value)) return badInput("parcel " + p.name + ": " + *problem, path);
    out.document = addLine(out.document, p.name, std::move(value), &line);
    out.document = out.document.added(p.name, objects::Parcel{line, false, 0, {}});
    return {};
}

}  // namespace

Result<Imported> addLandXml(const Document& document, const std::string& path, const LandXml& content) {
    Imported out;
    out.document = document;
    out.left = content.left;
    const double by = convertLength(1.0, content.unit, document.settings().display.unit);
    if (!content.points.empty()) {
        auto points = content.points;
        for (auto& p : points) {
            p.plan = p.plan * by;
            if (p.height) p.height = *p.height * by;
        }
        out.points = points.size();
        out.document = operations::withPointsIn(out.document, stemOf(path), std::move(points));
    }
    for (const auto& s : content.surfaces)
        if (auto done = addXmlSurface(out, s, by, path); !done) return tl::unexpected(done.error());
    for (const auto& a : content.alignments)
        if (auto done = addXmlAlignment(out, a, by, path); !done) return tl::unexpected(done.error());
    for (const auto& p : content.parcels)
        if (auto done = addXmlParcel(out, p, by, path); !done) return tl::unexpected(done.error());
    return out;
}

Result<CsvLayout> layoutFor(std::string_view bytes, const std::string& columnLetters,
                            const std::string& file) {
    auto layout = proposeLayout(bytes, file);
    if (!layout) return layout;
    if (!columnLetters.empty()) {
        auto columns = columnsByLetters(columnLetters);
        if (!columns) return tl::unexpected(columns.error());
        layout->columns = std::move(*columns);
        // A first row whose coordinates are not numbers is a header.
        const auto table = readTable(bytes, layout->separator, file, 1);
        if (!table) return tl::unexpected(table.error());
        layout->header = false;
        const auto& first = table->rows.front().cells;
        for (std::size_t i = 0; i < layout->columns.size() && i < first.size(); ++i)
            if ((layout->columns[i] == Column::Easting || layout->columns[i] == Column::Northing) &&
                !parseNumber(first[i], layout->decimalComma))
                layout->header = true;
    } else if (!layout->header) {
        return badInput(
            "the first row names no columns; say what they are with --columns, one letter each of P N E Z D "
            "-",
            file, 1);
    }
    for (const Column needed : {Column::Easting, Column::Northing})
        if (std::find(layout->columns.begin(), layout->columns.end(), needed) == layout->columns.end())
            return badInput("there is no " + std::string(columnName(needed)) + " column", file, 1);
    return layout;
}

Result<CsvPoints> readPointFile(const std::string& path, const ImportOptions& options, LengthUnit unit) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    auto layout = layoutFor(*bytes, options.columns, path);
    if (!layout) return tl::unexpected(layout.error());
    layout->unit = unit;
    auto points = readPoints(*bytes, *layout, unit, path);
    if (points && !points->skipped.empty() && !options.skipBadRows)
        return badInput(points->skipped.front().reason, path, points->skipped.front().line);
    return points;
}

Result<Imported> addCloud(const Document& document, const std::string& path, const Context& context) {
    objects::Cloud cloud;
    cloud.file = std::filesystem::absolute(path).string();
    auto read = attachedCloud(cloud.file, context);
    if (!read) {
        Error error = read.error();
        error.file = path;
        return tl::unexpected(error);
    }
    cloud.cloud = std::move(*read);
    if (cloud.cloud->coloured()) cloud.colouring = objects::CloudColouring::Colour;
    Imported out;
    out.points = cloud.cloud->size();
    out.document = document.added(stemOf(path), std::move(cloud));
    return out;
}

Result<Imported> addRaster(const Document& document, const std::string& path, const Context& context) {
    const std::string file = std::filesystem::absolute(path).string();
    const auto heights = holdsHeights(file);
    Imported out;
    const auto named = [&](Error error) {
        error.file = path;
        return tl::unexpected(std::move(error));
    };
    if (!heights) return named(heights.error());
    if (*heights) {
        auto raster = attachedRaster(file, context);
        if (!raster) return named(raster.error());
        out.document = document.added(stemOf(path), objects::HeightRaster{file, std::move(*raster), {}});
    } else {
        auto picture = attachedPicture(file, context);
        if (!picture) return named(picture.error());
        out.document = document.added(stemOf(path), objects::Backdrop{file, std::move(*picture), {}});
    }
    return out;
}

Result<Imported> addSurfaceOf(const Document& document, const std::string& path, terrain::Tin tin) {
    LandXml content;
    content.unit = document.settings().display.unit;
    content.surfaces.push_back({stemOf(path), std::move(tin), {}});
    return addLandXml(document, path, content);
}

Result<Imported> importFile(const Document& document, const std::string& path, const ImportOptions& options,
                            const Context& context) {
    // What has no ending that is known is asked of the library.
    const Format* format = formatOf(path);
    return (format == nullptr ? otherVectors().read : format->read)(document, path, options, context);
}

Result<std::shared_ptr<const terrain::TinLocator>> openSurface(const std::string& spec, bool withJournal,
                                                               LengthUnit* unit) {
    if (const Format* format = formatOf(spec); format != nullptr && format->readSurface != nullptr) {
        auto surface = format->readSurface(spec);
        if (!surface) return tl::unexpected(surface.error());
        if (unit != nullptr && surface->unit) *unit = *surface->unit;
        return std::make_shared<const terrain::TinLocator>(
            std::make_shared<const terrain::Tin>(std::move(surface->tin)));
    }
    const std::size_t mark = spec.find(".erdwerk");
    if (mark == std::string::npos)
        return fail(ErrorCode::Unsupported, "a surface is a file (" + endingsThat([](const Format& f) {
                                                return f.readSurface != nullptr;
                                            }) + "), or PROJECT.erdwerk:NAME",
                    spec);
    const std::string path = spec.substr(0, mark + 8);
    const std::string name = spec.size() > mark + 9 ? spec.substr(mark + 9) : "";
    const auto opened = openProjectWithJournal(path, withJournal);
    if (!opened) return tl::unexpected(opened.error());
    const auto all = opened->document.all<objects::Surface>();
    const ObjectId id =
        name.empty() && all.size() == 1 ? all.front() : opened->document.byName<objects::Surface>(name);
    if (!id)
        return fail(ErrorCode::NotFound,
                    name.empty() ? "say which surface: PROJECT.erdwerk:NAME" : "has no surface named " + name,
                    path);
    const auto derived = derive::evaluate(opened->document);
    if (!derived) return tl::unexpected(derived.error());
    const auto& result = derived->surfaces.at(id);
    if (!result->locator) return badInput("surface " + name + " cannot be built: " + result->problem, path);
    if (unit != nullptr) *unit = opened->document.settings().display.unit;
    return result->locator;
}

}  // namespace erdwerk::format
