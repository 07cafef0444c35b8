// Alignments and designs that do not keep to their criteria.

#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/derive/route_result.h"
#include "core/objects/alignment.h"
#include "core/objects/points.h"
#include "core/operations/stationed_points.h"
#include "core/route/criteria.h"

namespace erdwerk::check {

namespace {

using route::DesignFault;

std::string figureText(const route::DesignFinding& f, const DisplaySettings& display) {
    const auto length = [&](double v) { return formatLength(v, display); };
    const auto percent = [](double v) { return formatFixed(v, 2) + " %"; };
    const auto degrees = [](double v) { return formatFixed(v, 2) + " degrees"; };
    const auto k = [](double v) { return formatFixed(v, 1); };
    switch (f.fault) {
        case DesignFault::Radius:
            return "the radius is " + length(f.value) + ", at least " + length(f.limit) + " is asked for";
        case DesignFault::Spiral:
            return (f.value > 0 ? "the spiral is " + length(f.value) + " long"
                                : std::string("there is no spiral")) +
                   ", at least " + length(f.limit) + " is asked for";
        case DesignFault::Crest:
        case DesignFault::Sag:
            return std::string(f.fault == DesignFault::Crest ? "the crest" : "the sag") +
                   (f.value > 0 ? " has K " + k(f.value) : " has no curve") + ", at least K " + k(f.limit) +
                   " is asked for";
        case DesignFault::Grade:
            return "the grade is " + percent(f.value) +
                   (std::abs(f.value) > f.limit ? ", at most " : ", at least ") + percent(f.limit) +
                   (std::abs(f.value) > f.limit ? " is allowed" : " is asked for");
        case DesignFault::CurveLength:
            return "the curve is " + length(f.value) + " long, at least " + length(f.limit) + " is asked for";
        case DesignFault::TangentLength:
            return "the straight between two curves is " + length(f.value) + " long, at least " +
                   length(f.limit) + " is asked for";
        case DesignFault::Deflection:
            return "it turns by " + degrees(f.value) + " without a curve, at most " + degrees(f.limit) +
                   " is allowed";
        case DesignFault::NotTangent:
            break;
    }
    return {};
}

}  // namespace

void designs(const derive::Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    const auto& display = document.settings().display;
    for (const auto& [id, check] : derived.designs) {
        const auto* line = derive::Derived::in(derived.alignments, id);
        const auto* alignment = document.get<objects::Alignment>(id);
        if (line == nullptr || alignment == nullptr || line->path.empty()) continue;
        const std::string name = document.nameOf(id);
        const auto add = [&, id = id](std::string text, Severity severity, std::optional<double> distance) {
            Finding f;
            f.kind = kinds::design;
            f.severity = severity;
            f.text = std::move(text);
            if (distance) f.at = geometry::positionAt(line->path, *distance).place;
            f.objects = {id, alignment->criteria};
            f.names = {name, document.nameOf(alignment->criteria)};
            out.push_back(std::move(f));
        };
        if (!check->problem.empty())
            add("'" + name + "' is not checked against '" + document.nameOf(alignment->criteria) +
                    "': " + check->problem,
                Severity::LookAt, std::nullopt);
        for (const auto& f : check->findings) {
            // A joint that is not tangent is a finding of its own already.
            if (f.fault == DesignFault::NotTangent) continue;
            const std::string from = formatStation(line->stationing.stationAt(f.from), display);
            const std::string to = formatStation(line->stationing.stationAt(f.to), display);
            add("'" + name + "' " + (from == to ? "at " + from : from + " to " + to) + ": " +
                    figureText(f, display),
                Severity::LookAt, (f.from + f.to) / 2);
        }
    }
}

void tiedPoints(const derive::Derived& derived, std::vector<Finding>& out) {
    const auto& document = derived.document;
    for (const ObjectId id : document.all<objects::Points>()) {
        const auto& points = *document.get<objects::Points>(id);
        const auto* line =
            points.tie ? derive::Derived::in(derived.alignments, points.tie->alignment) : nullptr;
        if (line == nullptr) continue;
        std::size_t off = 0;
        const objects::TiedPoint* first = nullptr;
        for (const auto& tied : points.tie->points) {
            if (line->stationing.distanceAt(tied.station, line->length)) continue;
            if (off++ == 0) first = &tied;
        }
        if (off == 0) continue;
        Finding f;
        f.kind = kinds::tiedOff;
        f.severity = Severity::LookAt;
        f.text = "'" + document.nameOf(id) + "': " + std::to_string(off) + " of its points, '" +
                 first->number + "' at " + formatStation(first->station, document.settings().display) +
                 " first, stand at stations that are no longer on '" +
                 document.nameOf(points.tie->alignment) + "'; they stay where they were";
        if (const auto at = points.set.find(first->number)) f.at = points.set[*at].plan;
        f.objects = {id, points.tie->alignment};
        f.names = {document.nameOf(id), document.nameOf(points.tie->alignment)};
        f.fixes.push_back({"Loosen '" + document.nameOf(id) + "'",
                           [id](const document::Document& d) { return operations::loosenPoints(id)(d); },
                           "Loosen them"});
        out.push_back(std::move(f));
    }
}

}  // namespace erdwerk::check
