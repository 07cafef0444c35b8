#include "app/tools/ground_tools.h"

#include "app/shell/aside.h"
#include "app/shell/theme.h"
#include "app/tools/stage_tools.h"
#include "core/document/dense_source.h"
#include "core/document/edge.h"
#include "core/document/edit.h"
#include "core/document/extract.h"
#include "core/document/mend.h"
#include "core/terrain/drop.h"
#include "core/terrain/sampling.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;
using geometry::Vec3;
using terrain::EditKind;

namespace {

using Picks = std::vector<Snap>;

QString tr(const char* text) {
    return QObject::tr(text);
}

// ---- typed picks

Snap typedSnap(const QString& name, double value = 0) {
    Snap snap;
    snap.kind = SnapKind::Typed;
    snap.name = name;
    snap.height = value;
    return snap;
}

Result<Snap> typedNumber(const Session&, const QString& text) {
    const auto value = typedFigure(text);
    if (!value) return badInput("type a figure");
    return typedSnap(text.trimmed(), *value);
}

Result<Snap> typedPositive(const Session& session, const QString& text) {
    auto snap = typedNumber(session, text);
    if (snap && !(*snap->height > 0)) return badInput("type a figure above 0");
    return snap;
}

// ---- rings

Result<std::vector<Vec2>> ringOf(const Session& s, const Snap& pick) {
    const auto* line = document::Derived::in(s.derived().lines, pick.ref.object);
    if (line == nullptr || !line->closed) return badInput("pick a closed line");
    return document::boundaryAlong(*line, document::breaklineSagitta).ring;
}

Result<Document> addRing(const Session& s, const Snap& pick, document::Role role) {
    if (const auto ring = ringOf(s, pick); !ring) return tl::unexpected(ring.error());
    return addRole(s, pick, role);
}

Result<Document> withCloud(const Session& s, const std::function<Result<Document>(ObjectId)>& edit) {
    ObjectId cloud = currentDense(s);
    if (s.document().get<document::Cloud>(cloud) == nullptr) {
        const auto all = s.document().all<document::Cloud>();
        if (all.empty()) return badInput("there is no cloud yet");
        cloud = all.front();
    }
    return edit(cloud);
}

// ---- own edits

Result<Document> ownEdit(const Session& s, EditKind kind, Vec2 at, Vec3 to = {}, ObjectId other = {}) {
    return document::tryEdit(s.derived(), currentSurface(s), {{kind, at, to}, other, true});
}

Vec3 placeOf(const Session& s, const Snap& pick) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto height =
        pick.height ? pick.height : (surface != nullptr ? surface->heightAt(pick.place) : std::nullopt);
    return {pick.place.x, pick.place.y, height.value_or(0)};
}

void outline(QPainter& painter, const ViewTransform& view, const std::vector<Vec2>& places, bool closed,
             const QColor& fill = Qt::transparent) {
    QPolygonF shape;
    for (const Vec2 p : places) shape << view.toPicture(p);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
    painter.setBrush(fill);
    if (closed)
        painter.drawPolygon(shape);
    else
        painter.drawPolyline(shape);
    painter.setBrush(Qt::NoBrush);
}

/// The side of a triangle that is nearest to a place.
int nearestSide(const terrain::Tin& tin, std::uint32_t t, Vec2 place) {
    int best = 0;
    double least = -1;
    for (int i = 0; i < 3; ++i) {
        const geometry::Path side{{tin.vertex(tin.corner(t, (i + 1) % 3)).plan(),
                                   tin.vertex(tin.corner(t, (i + 2) % 3)).plan(), std::nullopt}};
        const double d = std::abs(geometry::nearestOn(side, place)->distance);
        if (least >= 0 && d >= least) continue;
        least = d;
        best = i;
    }
    return best;
}

void ghostFlip(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.back().place);
    if (!t) return;
    const auto& tin = surface->tin();
    const int side = nearestSide(tin, *t, k.back().place);
    const std::uint32_t n = tin.neighbour(*t, side);
    if (n == terrain::Tin::none) return;
    Vec2 across{};
    for (int i = 0; i < 3; ++i)
        if (tin.neighbour(n, i) == *t) across = tin.vertex(tin.corner(n, i)).plan();
    const Vec2 top = tin.vertex(tin.corner(*t, side)).plan();
    outline(painter, view,
            {top, tin.vertex(tin.corner(*t, (side + 1) % 3)).plan(), across,
             tin.vertex(tin.corner(*t, (side + 2) % 3)).plan()},
            true, QColor(0xB9, 0x50, 0x2B, 30));
    outline(painter, view, {top, across}, false);
}

void ghostTriangle(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.back().place);
    if (!t) return;
    const auto c = surface->tin().triangle(*t);
    outline(painter, view, {c[0].plan(), c[1].plan(), c[2].plan()}, true, QColor(0xB9, 0x50, 0x2B, 50));
}

/// The triangles round the vertex that is nearest.
void ghostVertex(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.front().place);
    if (!t) return;
    const auto& tin = surface->tin();
    Vec2 vertex = tin.vertex(tin.corner(*t, 0)).plan();
    for (int i = 1; i < 3; ++i) {
        const Vec2 other = tin.vertex(tin.corner(*t, i)).plan();
        if (geometry::distance(other, k.front().place) < geometry::distance(vertex, k.front().place))
            vertex = other;
    }
    painter.setPen(QPen(theme::clay, 2));
    painter.setBrush(QColor(0xB9, 0x50, 0x2B, 60));
    painter.drawEllipse(view.toPicture(vertex), 6, 6);
    if (k.size() > 1) outline(painter, view, {vertex, k.back().place}, false);
}

void ghostLine(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    if (k.empty()) return;
    if (const auto* line = document::Derived::in(s.derived().lines, k.front().ref.object))
        paintGhostPath(painter, view, line->path, {});
}

// ---- water drops and parts

Result<Document> drop(const Session& s, const Snap& pick) {
    const auto* surface = s.derived().surface(currentSurface(s));
    if (surface == nullptr) return badInput("there is no surface yet");
    const auto path = terrain::dropPath(*surface, pick.place);
    if (path.end == terrain::DropEnd::NotOnSurface) return badInput("the surface does not reach this place");
    if (path.places.size() < 2)
        return badInput("the drop stays where it falls: the ground is level or a hollow");
    std::vector<Vec2> corners;
    std::vector<std::optional<double>> heights;
    for (const Vec3& p : path.places) {
        corners.push_back(p.plan());
        heights.emplace_back(p.z);
    }
    Document next = s.document();
    ObjectId group = next.byName<document::Group>("Water drops");
    if (!group) next = next.added("Water drops", document::Group{"#2C6E68", true}, &group);
    return next.added(document::freshName<document::Line>(next, "Water drop"),
                      document::Line{linework::lineThrough(corners, heights), document::LineStyle::Plain},
                      nullptr, group);
}

void ghostDrop(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    if (surface == nullptr || k.empty()) return;
    const auto path = terrain::dropPath(*surface, k.back().place);
    if (path.places.size() < 2) return;
    QPolygonF shape;
    for (const Vec3& p : path.places) shape << view.toPicture(p.plan());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::spruce, 2.4));
    painter.drawPolyline(shape);
    painter.setBrush(theme::spruce);
    painter.drawEllipse(shape.back(), 4, 4);
    painter.setBrush(Qt::NoBrush);
    const auto& display = s.document().settings().display;
    const double fall = path.places.front().z - path.places.back().z;
    const QString text = (path.end == terrain::DropEnd::Hollow ? tr("ends in a hollow, %1 lower")
                                                               : tr("leaves the surface, %1 lower"))
                             .arg(QString::fromStdString(formatLength(fall, display)));
    painter.setFont(theme::font(12, true));
    painter.setPen(theme::spruce.darker(120));
    painter.drawText(shape.back() + QPointF(10, 16), text);
}

Result<Document> takeContour(const Session& s, const Snap& pick) {
    const ObjectId surface = currentSurface(s);
    const auto* locator = s.derived().surface(surface);
    const auto height = locator == nullptr ? std::nullopt : locator->heightAt(pick.place);
    if (!height) return badInput("the surface does not reach this place");
    const double interval = s.document().get<document::Surface>(surface)->style.interval;
    document::ExtractOptions options;
    options.what = document::Extract::Contours;
    options.levels = {std::round(*height / interval) * interval};
    auto out = document::extractFrom(s.derived(), surface, options);
    if (!out) return tl::unexpected(out.error());
    return std::move(out->document);
}

Result<Document> takeTriangle(const Session& s, const Snap& pick) {
    document::ExtractOptions options;
    options.what = document::Extract::Triangles;
    options.picked = {pick.place};
    auto out = document::extractFrom(s.derived(), currentSurface(s), options);
    if (!out) return tl::unexpected(out.error());
    return std::move(out->document);
}

Result<Document> gridSample(const Session& s, const Picks& k) {
    const auto ring = ringOf(s, k[0]);
    if (!ring) return tl::unexpected(ring.error());
    geometry::Box box;
    for (const Vec2 p : *ring) box.add(p);
    const ObjectId source = currentDense(s);
    const double spacing = *k[1].height;
    if (box.width() * box.height() / (spacing * spacing) > 1e6)
        return badInput("that would be more than a million points; take a wider spacing");
    // Triangulating what is dense takes a while.
    const auto places = aside([&, snapshot = s.snapshot()]() -> Result<std::vector<Vec3>> {
        const auto dense = document::denseSurface(snapshot->derived, source, box);
        if (!dense) return tl::unexpected(dense.error());
        return terrain::sampleOnGrid(**dense, spacing, *ring);
    });
    if (!places) return tl::unexpected(places.error());
    if (places->empty()) return badInput("there are no heights inside this line");
    std::vector<survey::SurveyPoint> points;
    for (const Vec3& p : *places)
        points.push_back({"G" + std::to_string(points.size() + 1), p.plan(), p.z, "", ""});
    return s.document().added(
        document::freshName<document::Points>(s.document(), "Grid of " + s.document().nameOf(source)),
        document::Points{survey::PointSet(std::move(points))});
}

PickStep place(const QString& role, const QString& prompt) {
    return {role, prompt, Accept::Place};
}

}  // namespace

PickSpec groundSpec(const QString& id) {
    const QString examplePlace = QStringLiteral("48010.5, 91020.25, 320.4");
    PickSpec p;
    const auto is = [&](const char* name) { return id == QLatin1String(name); };
    const auto line = [](const QString& prompt) { return PickStep{tr("Line"), prompt, Accept::Line}; };
    if (is("contour-add")) {
        p = {tr("Add a contour"),
             tr("Add a contour as source"),
             {line(tr("Pick the line that lies on one height"))},
             [](const Session& s, const Picks& k) { return addRole(s, k[0], document::Role::Contour); },
             true,
             {},
             {}};
    } else if (is("opening")) {
        p = {tr("Add an opening"),
             tr("Add an opening"),
             {line(tr("Pick the closed line inside which there is no surface"))},
             [](const Session& s, const Picks& k) { return addRing(s, k[0], document::Role::Opening); },
             true,
             {},
             {}};
    } else if (is("island")) {
        p = {tr("Add an island"),
             tr("Add an island"),
             {line(tr("Pick the closed line, in an opening, inside which there is surface again"))},
             [](const Session& s, const Picks& k) { return addRing(s, k[0], document::Role::Island); },
             true,
             {},
             {}};
    } else if (is("flip-side")) {
        p = {tr("Flip a side"),
             tr("Flip a side of a triangle"),
             {place(tr("Side"), tr("Click near the side that two triangles share"))},
             [](const Session& s, const Picks& k) { return ownEdit(s, EditKind::FlipSide, k[0].place); },
             true,
             {},
             {},
             ghostFlip};
    } else if (is("triangle-remove")) {
        p = {
            tr("Remove a triangle"),
            tr("Remove a triangle"),
            {place(tr("Triangle"), tr("Click inside the triangle to remove"))},
            [](const Session& s, const Picks& k) { return ownEdit(s, EditKind::RemoveTriangle, k[0].place); },
            true,
            {},
            {},
            ghostTriangle};
    } else if (is("surface-point-remove")) {
        p = {tr("Leave out a surface point"),
             tr("Leave out a surface point"),
             {place(tr("Point"), tr("Click near the surface point to leave out; its source keeps it"))},
             [](const Session& s, const Picks& k) { return ownEdit(s, EditKind::RemovePoint, k[0].place); },
             true,
             {},
             {},
             ghostVertex};
    } else if (is("surface-point-add")) {
        p = {tr("Add a surface point"),
             tr("Add a surface point"),
             {place(tr("Place"), tr("Click where the point goes, or type E, N, height"))},
             [](const Session& s, const Picks& k) {
                 return ownEdit(s, EditKind::AddPoint, k[0].place, placeOf(s, k[0]));
             },
             true,
             examplePlace,
             typedPlace,
             ghostTriangle};
    } else if (is("surface-point-move")) {
        p = {tr("Move a surface point"),
             tr("Move a surface point"),
             {place(tr("Point"), tr("Click near the surface point to move")),
              place(tr("To"), tr("Click where it goes, or type E, N, height"))},
             [](const Session& s, const Picks& k) {
                 return ownEdit(s, EditKind::MovePoint, k[0].place, placeOf(s, k[1]));
             },
             true,
             examplePlace,
             typedPlace,
             ghostVertex};
    } else if (is("surface-raise")) {
        p = {tr("Raise or lower"),
             tr("Raise or lower a surface"),
             {{tr("By"), tr("Type how much to raise the whole surface; a minus lowers it"), Accept::Typed}},
             [](const Session& s, const Picks& k) {
                 return ownEdit(s, EditKind::Raise, {}, {0, 0, *k[0].height});
             },
             false,
             QStringLiteral("-0.30"),
             typedNumber};
    } else if (is("surface-take-over")) {
        p = {
            tr("Take over a surface"),
            tr("Take over another surface"),
            {{tr("Surface"), tr("Type the name of the surface to take over inside its edge"), Accept::Typed}},
            [](const Session& s, const Picks& k) -> Result<Document> {
                const ObjectId other = s.document().byName<document::Surface>(k[0].name.toStdString());
                if (!other) return badInput("there is no surface of that name");
                return ownEdit(s, EditKind::TakeOver, {}, {}, other);
            },
            false,
            tr("name of a surface"),
            [](const Session&, const QString& text) -> Result<Snap> { return typedSnap(text.trimmed()); }};
    } else if (is("drop")) {
        p = {tr("Water drop"),
             tr("Water drop"),
             {place(tr("Falls at"), tr("Click where a drop of water falls; its way is kept as a line"))},
             [](const Session& s, const Picks& k) { return drop(s, k[0]); },
             true,
             {},
             typedPlace,
             ghostDrop};
    } else if (is("take-contour")) {
        p = {tr("Contour as lines"),
             tr("Contour as lines"),
             {place(tr("At"), tr("Click a contour; it becomes 3D lines of its own"))},
             [](const Session& s, const Picks& k) { return takeContour(s, k[0]); },
             true,
             {},
             {},
             [](QPainter&, const ViewTransform&, const Session&, const Picks&) {}};
    } else if (is("take-triangle")) {
        p = {tr("Triangle as a line"),
             tr("Triangle as a line"),
             {place(tr("Triangle"), tr("Click a triangle; it becomes a closed 3D line"))},
             [](const Session& s, const Picks& k) { return takeTriangle(s, k[0]); },
             true,
             {},
             {},
             ghostTriangle};
    } else if (is("cloud-crop")) {
        p = {tr("Crop a cloud"),
             tr("Crop a cloud"),
             {line(tr("Pick the closed line inside which the cloud's points take part"))},
             [](const Session& s, const Picks& k) -> Result<Document> {
                 const auto ring = ringOf(s, k[0]);
                 if (!ring) return tl::unexpected(ring.error());
                 return withCloud(s, [&](ObjectId cloud) -> Result<Document> {
                     return document::changed<document::Cloud>(
                         s.document(), cloud, [&](document::Cloud& c) { c.filter.inside = *ring; });
                 });
             },
             false,
             {},
             {},
             ghostLine};
    } else if (is("cloud-class")) {
        p = {tr("Set a class by hand"),
             tr("Set a class by hand"),
             {line(tr("Pick the closed line round the points")),
              {tr("Class"), tr("Type the class number: 2 ground, 5 vegetation, 6 building, 1 none"),
               Accept::Typed}},
             [](const Session& s, const Picks& k) -> Result<Document> {
                 const auto ring = ringOf(s, k[0]);
                 if (!ring) return tl::unexpected(ring.error());
                 const double number = *k[1].height;
                 if (number != std::floor(number) || number < 0 || number > 255)
                     return badInput("a class is a whole number from 0 to 255");
                 return withCloud(s, [&](ObjectId cloud) -> Result<Document> {
                     return aside([&, before = s.document()] {
                         return document::classify(before, cloud, *ring, static_cast<std::uint8_t>(number));
                     });
                 });
             },
             true,
             QStringLiteral("2"),
             typedNumber,
             ghostLine};
    } else if (is("grid-sample")) {
        p = {tr("Sample on a grid"),
             tr("Sample on a grid"),
             {line(tr("Pick the closed line inside which the grid lies")),
              {tr("Spacing"), tr("Type the distance between the points"), Accept::Typed}},
             gridSample,
             false,
             QStringLiteral("2"),
             typedPositive,
             ghostLine};
    }
    return p;
}

}  // namespace erdwerk::app
