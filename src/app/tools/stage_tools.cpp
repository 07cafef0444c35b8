#include "app/tools/stage_tools.h"

#include "app/tools/ground_tools.h"
#include "core/base/notation.h"
#include "core/document/edit.h"
#include "core/linework/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

using Picks = std::vector<Snap>;

const linework::Line3D* lineOf(const Session& s, const Snap& pick) {
    const auto* line = s.document().get<document::Line>(pick.ref.object);
    return line == nullptr ? nullptr : &line->line;
}

/// An edit of one picked line by a core operation.
Result<Document> withLine(const Session& s, const Snap& pick,
                          const std::function<Result<linework::Line3D>(const linework::Line3D&)>& edit) {
    const auto* line = lineOf(s, pick);
    if (line == nullptr) return badInput("pick a line");
    auto next = edit(*line);
    if (!next) return tl::unexpected(next.error());
    return document::setLine(s.document(), pick.ref.object, std::move(*next));
}

Result<Document> splitLine(const Session& s, const Snap& pick) {
    const auto* line = lineOf(s, pick);
    const auto* resolved = document::Derived::in(s.derived().lines, pick.ref.object);
    if (line == nullptr || resolved == nullptr) return badInput("pick a line");
    // A place between vertices is cut at a corner that is put there first.
    auto cut = *line;
    std::size_t vertex = pick.ref.part.value_or(0);
    auto heights = *resolved;
    if (!pick.ref.part) {
        auto with = linework::insertCorner(*line, pick.segment, pick.fraction);
        if (!with) return tl::unexpected(with.error());
        cut = *with;
        heights =
            linework::resolve(cut, [&s](ObjectId id, geometry::Vec2 p) -> Result<std::optional<double>> {
                const auto* surface = s.derived().surface(id);
                return surface == nullptr ? std::optional<double>{} : surface->heightAt(p);
            });
        vertex = 0;
        for (std::size_t i = 1; i < heights.vertices.size(); ++i)
            if (geometry::distance(heights.vertices[i].place, pick.place) <
                geometry::distance(heights.vertices[vertex].place, pick.place))
                vertex = i;
    }
    auto parts = linework::split(cut, heights, vertex);
    if (!parts) return tl::unexpected(parts.error());
    Document next = document::setLine(s.document(), pick.ref.object, parts->first);
    if (!parts->second.vertices.empty()) {
        const auto object = s.document().find(pick.ref.object);
        next = next.added(object->name + " (2)",
                          document::Line{parts->second, std::get<document::Line>(object->payload).style},
                          nullptr, object->group);
    }
    return next;
}

Result<Document> joinLines(const Session& s, const Picks& picks) {
    const auto* a = lineOf(s, picks[0]);
    const auto* b = lineOf(s, picks[1]);
    if (a == nullptr || b == nullptr || picks[0].ref.object == picks[1].ref.object)
        return badInput("pick two different lines");
    if (a->closed || b->closed) return badInput("a closed line has no end to join");
    // Whichever ends are nearest meet; lines are turned as needed.
    const auto ends = [](const linework::Line3D& l) {
        return std::array{l.vertices.front().place, l.vertices.back().place};
    };
    double best = -1;
    bool turnA = false;
    bool turnB = false;
    for (const bool ta : {false, true})
        for (const bool tb : {false, true}) {
            const double d = geometry::distance(ends(*a)[ta ? 0 : 1], ends(*b)[tb ? 1 : 0]);
            if (best >= 0 && d >= best) continue;
            best = d;
            turnA = ta;
            turnB = tb;
        }
    const auto turned = [&](const linework::Line3D& l, ObjectId id, bool turn) {
        const auto* r = document::Derived::in(s.derived().lines, id);
        return turn && r != nullptr ? linework::reversed(l, *r) : l;
    };
    auto joined =
        linework::join(turned(*a, picks[0].ref.object, turnA), turned(*b, picks[1].ref.object, turnB), 0.001);
    if (!joined) return tl::unexpected(joined.error());
    return document::setLine(s.document(), picks[0].ref.object, *joined).without(picks[1].ref.object);
}

Result<Document> drapeLine(const Session& s, const Snap& pick) {
    const ObjectId surface = currentSurface(s);
    const auto* locator = s.derived().surface(surface);
    if (locator == nullptr) return badInput("there is no surface to lay the line on");
    if (document::hasSource(s.document(), surface, pick.ref.object))
        return badInput("the line is a source of this surface; its heights would go in a circle");
    return withLine(s, pick,
                    [&](const linework::Line3D& line) { return linework::drape(line, *locator, surface); });
}

Result<Document> makeAlignment(const Session& s, const Snap& pick) {
    const auto& d = s.document();
    if (lineOf(s, pick) == nullptr) return badInput("pick a line");
    return d.added(document::freshName<document::Alignment>(d, d.nameOf(pick.ref.object)),
                   document::Alignment{pick.ref.object, false, 0, 20});
}

Result<Document> makeParcel(const Session& s, const Snap& pick) {
    const auto& d = s.document();
    const auto* line = lineOf(s, pick);
    if (line == nullptr) return badInput("pick a closed line");
    if (cornersOf(*line).size() < 3) return badInput("a parcel needs at least three corners");
    return d.added(document::freshName<document::Parcel>(d, "Parcel"),
                   document::Parcel{pick.ref.object, false, 0, {}});
}

Result<Document> makeLabel(const Session& s, const Snap& pick) {
    Document d = s.document();
    if (d.get<document::Points>(pick.ref.object) != nullptr && pick.ref.part) {
        const ObjectId style = labelStyle(d, annotate::LabelKind::Point);
        return d.added(document::freshName<document::Label>(d, "Point label"),
                       document::Label{pick.ref.object, *pick.ref.part, style});
    }
    ObjectId target = pick.ref.object;
    std::size_t segment = pick.segment;
    if (const auto* parcel = d.get<document::Parcel>(target)) target = parcel->line;
    if (const auto* alignment = d.get<document::Alignment>(target)) {
        target = alignment->line;
        // The alignment may run against its line.
        if (const auto* l = d.get<document::Line>(target); l != nullptr && alignment->reversed)
            segment = planPath(l->line).size() - 1 - segment;
    }
    const auto* line = d.get<document::Line>(target);
    if (line == nullptr) return badInput("pick a side of a line, a curve or a survey point");
    const auto path = planPath(line->line);
    if (segment >= path.size()) return badInput("pick a side of a line");
    const ObjectId style =
        labelStyle(d, arcOf(path[segment]) ? annotate::LabelKind::Curve : annotate::LabelKind::Segment);
    return d.added(document::freshName<document::Label>(d, "Label"), document::Label{target, segment, style});
}

PickStep lineStep(const QString& prompt) {
    return {QObject::tr("Line"), prompt, Accept::Line};
}

}  // namespace

Result<Snap> typedPlace(const Session& s, const QString& text) {
    const auto place = parsePlaceEntry(text.toStdString(), s.document().settings().display);
    if (!place) return tl::unexpected(place.error());
    const auto* position = std::get_if<TypedPosition>(&*place);
    if (position == nullptr) return badInput("type a position: E, N or E, N, height");
    Snap snap;
    snap.place = {position->easting, position->northing};
    snap.height = position->height;
    snap.name =
        QString::fromStdString(formatPosition(snap.place.x, snap.place.y, s.document().settings().display));
    return snap;
}

Result<Document> addRole(const Session& s, const Snap& pick, document::Role role) {
    const ObjectId surface = currentSurface(s);
    if (!surface) return badInput("there is no surface yet");
    if (role == document::Role::Edge && !lineOf(s, pick)->closed)
        return badInput("the edge must be a closed line");
    return document::addSource(s.document(), surface, {pick.ref.object, role});
}

ObjectId labelStyle(Document& document, annotate::LabelKind kind) {
    for (const ObjectId id : document.all<document::LabelStyle>())
        if (document.get<document::LabelStyle>(id)->style.kind == kind) return id;
    ObjectId id;
    document = document.added("Plain " + std::string(annotate::kindName(kind)),
                              document::LabelStyle{annotate::defaultStyle(kind)}, &id);
    return id;
}

PickSpec pickSpec(const QString& id) {
    const auto tr = [](const char* text) { return QObject::tr(text); };
    PickSpec p;
    if (id == QStringLiteral("breakline-add")) {
        p = {tr("Add a breakline"),
             tr("Add a breakline"),
             {lineStep(tr("Pick the line that becomes a breakline of the surface"))},
             [](const Session& s, const Picks& k) { return addRole(s, k[0], document::Role::Breakline); },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("breakline-remove")) {
        p = {tr("Take out a breakline"),
             tr("Take out a breakline"),
             {lineStep(tr("Pick the breakline to take out of the surface"))},
             [](const Session& s, const Picks& k) -> Result<Document> {
                 if (!document::hasSource(s.document(), currentSurface(s), k[0].ref.object))
                     return badInput("this line is no source of the surface");
                 return document::removeSource(s.document(), currentSurface(s), k[0].ref.object);
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("edge")) {
        p = {tr("Set the edge"),
             tr("Set the edge of a surface"),
             {lineStep(tr("Pick the closed line the surface ends on"))},
             [](const Session& s, const Picks& k) { return addRole(s, k[0], document::Role::Edge); },
             false,
             {},
             {}};
    } else if (id == QStringLiteral("drape")) {
        p = {tr("Drape a line"),
             tr("Drape a line"),
             {lineStep(tr("Pick the line to lay on the surface"))},
             [](const Session& s, const Picks& k) { return drapeLine(s, k[0]); },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("corner-insert")) {
        p = {tr("Insert a corner"),
             tr("Insert a corner"),
             {{tr("Place"), tr("Click on a line where the corner goes"), Accept::LinePlace}},
             [](const Session& s, const Picks& k) {
                 return withLine(s, k[0], [&](const auto& l) {
                     return linework::insertCorner(l, k[0].segment, k[0].fraction);
                 });
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("grade-insert")) {
        p = {tr("Insert a grade point"),
             tr("Insert a grade point"),
             {{tr("Place"), tr("Click on a line where the grade point goes"), Accept::LinePlace}},
             [](const Session& s, const Picks& k) {
                 return withLine(s, k[0], [&](const auto& l) {
                     return linework::insertGradePoint(l, k[0].segment, k[0].fraction);
                 });
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("vertex-remove")) {
        p = {tr("Delete a corner"),
             tr("Delete a corner or grade point"),
             {{tr("Point"), tr("Pick the corner or grade point to delete"), Accept::Vertex}},
             [](const Session& s, const Picks& k) {
                 return withLine(s, k[0],
                                 [&](const auto& l) { return linework::removeVertex(l, *k[0].ref.part); });
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("move-vertex")) {
        p = {tr("Move a corner"),
             tr("Move a corner"),
             {{tr("Corner"), tr("Pick the corner to move"), Accept::Vertex},
              {tr("To"), tr("Click where it goes, or type E, N"), Accept::Place}},
             [](const Session& s, const Picks& k) {
                 return withLine(s, k[0], [&](const auto& l) {
                     return linework::moveCorner(l, *k[0].ref.part, k[1].place);
                 });
             },
             true,
             QStringLiteral("48010.5, 91020.25"),
             typedPlace};
    } else if (id == QStringLiteral("split")) {
        p = {tr("Split a line"),
             tr("Split a line"),
             {{tr("Cut at"), tr("Click on the line where it is to be cut"), Accept::LinePlace}},
             [](const Session& s, const Picks& k) { return splitLine(s, k[0]); },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("join")) {
        p = {tr("Join lines"),
             tr("Join lines"),
             {lineStep(tr("Pick the line that keeps its name")),
              {tr("Joined on"), tr("Pick the line to join to it"), Accept::Line}},
             [](const Session& s, const Picks& k) { return joinLines(s, k); },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("reverse")) {
        p = {tr("Reverse a line"),
             tr("Reverse a line"),
             {lineStep(tr("Pick the line whose direction is to be turned round"))},
             [](const Session& s, const Picks& k) {
                 return withLine(s, k[0], [&](const auto& l) -> Result<linework::Line3D> {
                     return linework::reversed(l, *s.derived().lines.at(k[0].ref.object));
                 });
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("close-line")) {
        p = {tr("Close a line"),
             tr("Close a line"),
             {lineStep(tr("Pick the open line to close"))},
             [](const Session& s, const Picks& k) -> Result<Document> {
                 return document::closeLine(s.document(), k[0].ref.object);
             },
             true,
             {},
             {}};
    } else if (id == QStringLiteral("alignment")) {
        p = {tr("Alignment from a line"),
             tr("Make an alignment"),
             {lineStep(tr("Pick the line of straights and arcs; the arrows show its direction"))},
             [](const Session& s, const Picks& k) { return makeAlignment(s, k[0]); },
             false,
             {},
             {}};
    } else if (id == QStringLiteral("parcel")) {
        p = {tr("Parcel from a line"),
             tr("Make a parcel"),
             {lineStep(tr("Pick the closed line round the parcel"))},
             [](const Session& s, const Picks& k) { return makeParcel(s, k[0]); },
             false,
             {},
             {}};
    } else if (id == QStringLiteral("label")) {
        p = {tr("Label"),
             tr("Add a label"),
             {{tr("Of"), tr("Pick a side, a curve or a survey point to label"), Accept::Place}},
             [](const Session& s, const Picks& k) { return makeLabel(s, k[0]); },
             true,
             {},
             {}};
    } else {
        p = groundSpec(id);
    }
    return p;
}

}  // namespace erdwerk::app
