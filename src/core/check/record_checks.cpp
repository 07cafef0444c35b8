// Labels that say nothing, dimensions that measure nothing.

#include <algorithm>

#include "core/annotate/label.h"
#include "core/check/all_checks.h"
#include "core/check/finding_kinds.h"
#include "core/objects/dimension.h"
#include "core/operations/dimensions.h"
#include "core/operations/labels.h"

namespace erdwerk::check {

using derive::Derived;
using document::Document;

namespace {

Fix removal(const Document& document, ObjectId id, std::string way) {
    return {"Remove " + document.nameOf(id), [id](const Document& d) { return d.without(id); }, "Remove",
            std::move(way)};
}

}  // namespace

void silentLabels(const Derived& derived, std::vector<Finding>& out) {
    for (const auto& [id, label] : derived.labels) {
        if (label->problem.empty()) continue;
        Finding f;
        f.kind = kinds::silentLabel;
        f.severity = Severity::LookAt;
        f.text = derived.document.nameOf(id) + " says nothing: " + label->problem;
        f.at = operations::labelPlaceIn(derived.document, id);
        f.objects = {id};
        f.names = {derived.document.nameOf(id)};
        f.fixes.push_back(removal(derived.document, id, "remove labels that say nothing"));
        out.push_back(std::move(f));
    }
}

void lostDimensions(const Derived& derived, std::vector<Finding>& out) {
    for (const auto& [id, dimension] : derived.dimensions) {
        if (dimension->problem.empty()) continue;
        const auto& of = *derived.document.get<objects::Dimension>(id);
        Finding f;
        f.kind = kinds::lostDimension;
        f.severity = Severity::LookAt;
        f.text = derived.document.nameOf(id) + " measures nothing: " + dimension->problem;
        for (const auto& anchor : of.anchors)
            if (!f.at) f.at = operations::anchorPlace(derived, anchor).value_or(anchor.place);
        f.objects = {id};
        f.names = {derived.document.nameOf(id)};
        const bool gone = std::any_of(of.anchors.begin(), of.anchors.end(),
                                      [](const auto& a) { return a.on == objects::Anchor::On::Gone; });
        if (gone)
            f.fixes.push_back(
                {"Measure where " + derived.document.nameOf(id) + " was",
                 [id = id](const Document& d) { return operations::keepDimensionInPlace(id)(d); },
                 "Measure where it was", "measure where they were"});
        f.fixes.push_back(removal(derived.document, id, "remove dimensions that measure nothing"));
        out.push_back(std::move(f));
    }
}

}  // namespace erdwerk::check
