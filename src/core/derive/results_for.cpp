#include <algorithm>
#include <tuple>

#include "core/derive/model.h"
#include "core/linework/height_solver.h"
#include "core/objects/line.h"

namespace erdwerk::derive {

namespace {

/// Whether an object and all that it depends on are the same in two documents.
class Sameness {
public:
    Sameness(const Document& a, const Document& b) : a_(a), b_(b) {
        settings_ = a.settingsPointer() == b.settingsPointer();
        for (const auto& [id, object] : b.objects())
            if (object->group && a.find(id) != object) changedGroups_[object->group] = true;
        for (const auto& [id, object] : a.objects())
            if (object->group && b.find(id) != object) changedGroups_[object->group] = true;
    }

    bool same(ObjectId id) {
        const auto [it, fresh] = known_.try_emplace(id, true);  // a circle ends here
        if (!fresh) return it->second;
        const auto object = a_.find(id);
        bool answer = object && b_.find(id) == object && changedGroups_.count(id) == 0;
        if (answer)
            for (const ObjectId other : references(object->payload))
                if (!same(other)) answer = false;
        return known_[id] = answer;
    }
    [[nodiscard]] bool settings() const { return settings_; }

private:
    const Document& a_;
    const Document& b_;
    bool settings_ = false;
    std::map<ObjectId, bool> changedGroups_;
    std::map<ObjectId, bool> known_;
};

/// Every sort of result. One that is missing here does not compile.
constexpr auto allResults =
    std::tuple(&Derived::surfaces, &Derived::contours, &Derived::contoursBefore, &Derived::fits,
               &Derived::bands, &Derived::clouds, &Derived::lines, &Derived::followed, &Derived::earthworks,
               &Derived::alignments, &Derived::designs, &Derived::profiles, &Derived::sections,
               &Derived::parcels, &Derived::readings, &Derived::labels, &Derived::dimensions);
static_assert(sizeof(Derived) ==
              sizeof(Document) + std::tuple_size_v<decltype(allResults)> * sizeof(Results<SurfaceResult>));

}  // namespace

Derived resultsFor(const Document& newest, const Derived& derived) {
    if (difference(derived.document, newest).empty()) return derived;
    Sameness sameness(derived.document, newest);
    Derived out;
    out.document = newest;
    const auto take = [&](const auto& from, auto& to) {
        for (const auto& [id, result] : from)
            if (sameness.same(id)) to[id] = result;
    };
    std::apply([&](const auto... results) { (take(derived.*results, out.*results), ...); }, allResults);
    if (!sameness.settings()) {  // their texts are written in its units
        out.parcels.clear();
        out.readings.clear();
        out.labels.clear();
        out.dimensions.clear();
    }
    const auto noSurface = [](ObjectId, geometry::Vec2) -> Result<std::optional<double>> {
        return std::optional<double>{};
    };
    for (const ObjectId id : newest.all<Line>()) {
        if (out.lines.count(id) != 0 || !references(newest.find(id)->payload).empty()) continue;
        out.lines[id] = std::make_shared<const linework::ResolvedLine>(
            linework::resolve(newest.get<Line>(id)->line, noSurface));
    }
    return out;
}

}  // namespace erdwerk::derive
