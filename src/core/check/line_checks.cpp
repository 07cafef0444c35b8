#include "core/check/finding.h"
#include "core/operations/edit.h"
#include "core/operations/lines.h"

namespace erdwerk::check {

using derive::Derived;

namespace {

/// Names all that is in the circle, the line first.
Finding circleFinding(const document::Document& document, ObjectId line, std::size_t point,
                      const linework::ResolvedVertex& vertex) {
    Finding f{
        "height-rule-circle", Severity::MustFix, {}, vertex.place, {}, {line}, {document.nameOf(line)}, {}};
    std::string round = "'" + document.nameOf(line) + "'";
    for (const ObjectId id : vertex.circle) {
        if (id == line) continue;
        f.objects.push_back(id);
        f.names.push_back(document.nameOf(id));
        round += " → '" + document.nameOf(id) + "'";
    }
    f.text = "'" + document.nameOf(line) + "', point " + std::to_string(point + 1) + ": " + vertex.problem;
    if (f.objects.size() > 1) f.text += " (" + round + " → '" + document.nameOf(line) + "')";
    f.fixes.push_back({"Give it no height", [line, point](const document::Document& d) {
                           const auto edited = operations::setRule(line, point, linework::NoHeight{})(d);
                           return edited ? edited->document : d;
                       }});
    return f;
}

}  // namespace

void heightRules(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto& [id, line] : derived.lines) {
        std::size_t missing = 0;
        std::size_t firstMissing = 0;
        bool circle = false;
        for (std::size_t i = 0; i < line->vertices.size(); ++i) {
            const auto& v = line->vertices[i];
            if (v.circular && !circle) {
                circle = true;
                out.push_back(circleFinding(document, id, i, v));
            }
            if (!v.height && !v.circular && missing++ == 0) firstMissing = i;
        }
        // Parcels and alignments need no heights; a line without any is a plan line.
        if (missing == 0 || missing == line->vertices.size()) continue;
        const auto& v = line->vertices[firstMissing];
        Finding f{"without-height", Severity::LookAt, {}, v.place, {}, {id}, {document.nameOf(id)}, {}};
        f.text = "'" + document.nameOf(id) + "' has " + std::to_string(missing) +
                 (missing == 1 ? " point" : " points") + " without height; point " +
                 std::to_string(firstMissing + 1) + ": " + v.problem;
        for (std::size_t i = 0; i < line->vertices.size() && f.parts.size() < mostParts; ++i)
            if (!line->vertices[i].height)
                f.parts.push_back({"Point " + std::to_string(i + 1) + ": " + line->vertices[i].problem,
                                   line->vertices[i].place});
        f.fixes.push_back(
            {"Interpolate them",
             [id = id](const document::Document& d) { return operations::interpolateMissing(d, id); },
             "interpolate " + std::to_string(missing), "interpolate what is missing"});
        out.push_back(std::move(f));
    }
}

void nonTangent(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const DisplaySettings& display = document.settings().display;
    for (const auto& [id, alignment] : derived.alignments) {
        for (const auto& b : alignment->breaks) {
            const Angle turn = Angle::radians(std::abs(b.turn.radians()));
            const bool curve =
                isCurved(alignment->path[b.segment]) || isCurved(alignment->path[b.segment + 1]);
            out.push_back({"non-tangent",
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
        }
    }
}

void parcelClosure(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto& [id, parcel] : derived.parcels) {
        const auto& closure = parcel->geometry.closure;
        if (closure.closes(document.settings().display.unit)) continue;
        const auto& courses = parcel->geometry.courses;
        if (courses.empty()) continue;
        Finding f{"parcel-open", Severity::MustFix,     {}, courses.back().end, {},
                  {id},          {document.nameOf(id)}, {}};
        f.text = "'" + document.nameOf(id) +
                 "' does not close: " + formatLength(closure.distance, document.settings().display) +
                 " are missing towards " + formatDirection(*closure.azimuth, document.settings().display);
        const ObjectId line = document.get<objects::Parcel>(id)->line;
        f.fixes.push_back({"Close its line",
                           [line](const document::Document& d) { return operations::closeLine(d, line); }});
        out.push_back(std::move(f));
    }
}

void surfaceFailed(const Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const auto& [id, surface] : derived.surfaces) {
        if (surface->locator) continue;
        out.push_back({"no-surface",
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
            out.push_back({"profile-invalid",
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
