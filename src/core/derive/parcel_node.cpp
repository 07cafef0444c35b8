// Parcels: courses, area, closure, description.

#include <algorithm>

#include "core/derive/evaluation.h"
#include "core/derive/parcel_result.h"
#include "core/derive/passage_of.h"
#include "core/linework/rules/rule_kind.h"
#include "core/objects/wording.h"

namespace erdwerk::derive {

namespace {

const std::string& nameAt(const std::vector<Parcel::Named>& names, std::size_t part) {
    static const std::string none;
    const auto found =
        std::find_if(names.begin(), names.end(), [&](const auto& n) { return n.part == part; });
    return found == names.end() ? none : found->name;
}

/// What was changed by hand, in place of what writes itself.
std::vector<ParcelPassage> withPassages(const Parcel& of, const std::vector<parcel::DescriptionPart>& parts,
                                        std::size_t sides, bool closed) {
    using Kind = parcel::DescriptionPart::Kind;
    std::vector<ParcelPassage> out;
    for (const auto& part : parts) {
        ParcelPassage next{part, {}, false};
        const auto what = passageOf(part.kind);
        const std::size_t side = part.kind == Kind::Course ? of.sideOf(part.course, sides, closed) : 0;
        const auto hand =
            std::find_if(of.passages.begin(), of.passages.end(), [&](const objects::Passage& p) {
                return p.of == what && (what != objects::Passage::Of::Course || p.side == side);
            });
        if (part.kind != Kind::Note && hand != of.passages.end()) {
            next.instead = part.text;
            next.stale = hand->instead != part.text;
            next.part.text = hand->text;
        }
        out.push_back(std::move(next));
    }
    return out;
}

parcel::DescriptionOrder orderOf(const Parcel& of, const std::string& name, const DisplaySettings& display,
                                 const parcel::ParcelGeometry& geometry, const linework::ResolvedLine* tie,
                                 bool closed) {
    parcel::DescriptionOrder order;
    order.name = name;
    order.beginning = of.beginning;
    order.display = display;
    order.areaUnits = of.areas;
    const std::size_t n = geometry.courses.size();
    for (std::size_t i = 0; i < n; ++i)
        order.names.push_back(
            {nameAt(of.adjoiners, of.sideOf(i, n, closed)), nameAt(of.things, of.cornerAfter(i, n, closed))});
    if (tie != nullptr) order.tie = parcel::Tie{of.commencement, parcel::survey(tie->path).courses};
    return order;
}

}  // namespace

std::shared_ptr<const ParcelResult> Evaluation::parcel(ObjectId id) {
    if (const auto it = out.parcels.find(id); it != out.parcels.end()) return it->second;
    const auto* of = document.get<Parcel>(id);
    const auto on = of == nullptr ? nullptr : line(of->line);
    if (!on) return nullptr;
    const auto object = document.find(id);
    const auto wording = document.find(of->wording);
    const auto tie = of->tie ? line(of->tie) : nullptr;
    const auto make = [&] {
        ParcelResult result;
        result.geometry = parcel::survey(of->reversed ? geometry::reversed(on->path) : on->path, of->begin);
        const DisplaySettings& display = document.settings().display;
        const auto order = orderOf(*of, object->name, display, result.geometry, tie.get(), on->closed);
        const auto* chosen = document.get<Wording>(of->wording);
        const auto& plain = parcel::plainTemplate(display.unit);
        auto text = written(result.geometry, chosen == nullptr ? plain : chosen->wording, order);
        if (!text) {
            result.wordingProblem = text.error().text;
            text = written(result.geometry, plain, order);
        }
        if (text) {
            result.passages = withPassages(*of, text->parts, on->path.size(), on->closed);
            result.rounded = text->rounded;
        }
        std::vector<parcel::DescriptionPart> parts;
        for (const auto& passage : result.passages) parts.push_back(passage.part);
        result.description = parcel::wholeText(parts);
        result.table = parcel::courseTable(result.geometry, display);
        return result;
    };
    return out.parcels[id] = remembered<ParcelResult>(
               "parcel", id, {object, on, document.settingsPointer(), wording, tie}, {}, make);
}

void work(Evaluation& evaluation, ObjectId id, const Parcel&) {
    evaluation.parcel(id);
}

}  // namespace erdwerk::derive
