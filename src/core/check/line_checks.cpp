#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/parcel_result.h"
#include "core/derive/surface_result.h"
#include "core/linework/chorded_arcs.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/profile.h"
#include "core/operations/plan_shape.h"
#include "core/operations/routes.h"
#include "core/route/tangency.h"

namespace erdwerk::check {

using derive::Derived;

namespace {

/// A curve of the radius beside the joint (else of 40), or half of it, and half again, until it fits.
void addCurveFix(Finding& finding, const document::Document& document, ObjectId id,
                 const route::AlignmentGeometry& alignment, std::size_t element) {
    double radius = 40;
    for (const std::size_t k : {element, element + 1})
        if (const auto arc = arcOf(alignment.path[k])) radius = arc->radius;
    for (int halved = 0; halved < 6; ++halved, radius /= 2) {
        if (!route::withCurve(alignment.path, element, radius)) continue;
        const std::string what =
            "Put a curve of radius " + formatLength(radius, document.settings().display) + " in";
        finding.fixes.push_back({what,
                                 [id, element, radius](const document::Document& d) {
                                     return operations::insertCurve(id, element, radius)(d);
                                 },
                                 what});
        return;
    }
}

}  // namespace

void nonTangent(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    for (const auto& [id, alignment] : derived.alignments) {
        for (const auto& b : alignment->breaks) {
            const Angle turn = Angle::radians(std::abs(b.turn.radians()));
            const bool curve =
                isCurved(alignment->path[b.segment]) || isCurved(alignment->path[b.segment + 1]);
            out.push_back({kinds::nonTangent,
                           Severity::LookAt,
                           "'" + document.nameOf(id) + "' is not tangent at " +
                               formatStation(b.station, display) + ": it turns " +
                               formatAngle(turn, display.angleUnit) +
                               (b.turn.radians() > 0 ? " to the right" : " to the left") +
                               (curve ? " at a curve's end" : ""),
                           b.place,
                           {},
                           {id},
                           {document.nameOf(id)},
                           {}});
            const auto* object = document.get<objects::Alignment>(id);
            const auto mended = object != nullptr && !object->elements.empty()
                                    ? route::madeTangent(alignment->path, b.segment)
                                    : std::nullopt;
            if (mended)
                out.back().fixes.push_back({"Move the joint of '" + document.nameOf(id) + "' by " +
                                                formatLength(mended->moved, display),
                                            [id = id, segment = b.segment](const document::Document& d) {
                                                return operations::makeTangent(id, segment)(d);
                                            },
                                            "Move the joint by " + formatLength(mended->moved, display)});
            if (object != nullptr && !object->line)
                addCurveFix(out.back(), document, id, *alignment, b.segment);
        }
    }
}

void drawnAsChords(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    for (const ObjectId id : document.all<objects::Line>()) {
        const auto* line = document.get<objects::Line>(id);
        if (line->follows) continue;
        const auto arcs = linework::chordedArcs(line->line, operations::roundingOf(document));
        if (arcs.empty()) continue;
        double off = 0;
        std::size_t sides = 0;
        Finding f{kinds::chords, Severity::Note,        {}, arcs.front().middle, {},
                  {id},          {document.nameOf(id)}, {}};
        for (const auto& arc : arcs) {
            off = std::max(off, arc.off);
            sides += arc.sides;
            if (f.parts.size() == mostInstances) continue;
            f.parts.push_back({"radius " + formatLength(arc.radius, display) + ", " +
                                   std::to_string(arc.sides) + " chords, within " + formatFixed(arc.off, 3),
                               arc.middle});
        }
        const std::string many = arcs.size() == 1 ? "an arc" : std::to_string(arcs.size()) + " arcs";
        f.text = "'" + document.nameOf(id) + "' has " + many + " drawn as " + std::to_string(sides) +
                 " chords, at most " + formatFixed(off, 3) + " off";
        f.fixes.push_back({"Make arcs of the chords of '" + document.nameOf(id) + "'",
                           operations::chordsToArcs(id), "Make " + many, "make arcs of their chords"});
        if (f.parts.size() == 1) f.parts.clear();
        out.push_back(std::move(f));
    }
}

void parcelClosure(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto& [id, parcel] : derived.parcels) {
        const auto& closure = parcel->geometry.closure;
        if (closure.closes(document.settings().display.unit)) continue;
        const auto& courses = parcel->geometry.courses;
        if (courses.empty()) continue;
        Finding f{kinds::parcelOpen,
                  Severity::MustFix,
                  {},
                  courses.back().end,
                  {},
                  {id},
                  {document.nameOf(id)},
                  {}};
        f.text = "'" + document.nameOf(id) +
                 "' does not close: " + formatLength(closure.distance, document.settings().display) +
                 " are missing towards " + formatDirection(*closure.azimuth, document.settings().display);
        const ObjectId line = document.get<objects::Parcel>(id)->line;
        f.fixes.push_back({"Close its line", operations::closeLine(line)});
        out.push_back(std::move(f));
    }
}

void surfaceFailed(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto& [id, surface] : derived.surfaces) {
        if (surface->locator) continue;
        out.push_back({kinds::noSurface,
                       Severity::MustFix,
                       "'" + document.nameOf(id) + "' cannot be built: " + surface->problem,
                       std::nullopt,
                       {},
                       {id},
                       {document.nameOf(id)},
                       {}});
    }
}

void designProfile(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto id : document.all<objects::Profile>()) {
        const auto* profile = document.get<objects::Profile>(id);
        const auto it = derived.alignments.find(profile->alignment);
        if (profile->design.empty() || it == derived.alignments.end()) continue;
        std::optional<geometry::Vec2> at;
        if (!it->second->path.empty()) at = it->second->path.front().start;
        if (const auto valid = route::validate(profile->design); !valid)
            out.push_back({kinds::profileInvalid,
                           Severity::MustFix,
                           "'" + document.nameOf(id) + "': " + valid.error().text,
                           at,
                           {},
                           {id},
                           {document.nameOf(id)},
                           {}});
    }
}

}  // namespace erdwerk::check
