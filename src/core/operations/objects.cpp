#include "core/operations/objects.h"

#include "core/objects/group.h"
#include "core/objects/points.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

Edit rename(ObjectId id, const std::string& name) {
    return [=](const Document& d) -> Result<Edited> {
        const auto object = d.find(id);
        if (!object) return badInput("what was to be renamed is gone");
        if (name.empty()) return badInput("a name has at least one letter");
        if (object->name == name) return d;
        Object next = *object;
        next.name = name;
        return d.with(std::move(next));
    };
}

Edit setGroup(ObjectId object, ObjectId group) {
    return [=](const Document& d) -> Result<Edited> {
        if (!d.find(object)) return badInput("what was to be grouped is gone");
        if (group && d.get<Group>(group) == nullptr) return badInput("the group is gone");
        return withGroup(d, object, group);
    };
}

Edit remove(std::vector<ObjectId> objects, std::vector<PointRef> points) {
    return [objects = std::move(objects), points = std::move(points)](const Document& d) -> Result<Edited> {
        const Document next = document::removeAll(d, objects);
        std::vector<PointRef> left;
        for (const PointRef& ref : points)
            if (const auto* set = next.get<Points>(ref.set); set != nullptr && ref.index < set->set.size())
                left.push_back(ref);
        return withoutPoints(next, left);
    };
}

Edit accept(Accepted accepted) {
    return changeSettings([accepted = std::move(accepted)](Settings& s) { s.accepted.push_back(accepted); });
}

Edit takeBackAcceptance(Accepted accepted) {
    return changeSettings(
        [accepted = std::move(accepted)](Settings& s) { std::erase(s.accepted, accepted); });
}

Edit changeSettings(std::function<void(Settings&)> change) {
    return [change = std::move(change)](const Document& d) -> Result<Edited> {
        auto settings = d.settings();
        change(settings);
        return settings == d.settings() ? d : d.withSettings(std::move(settings));
    };
}

}  // namespace erdwerk::operations
