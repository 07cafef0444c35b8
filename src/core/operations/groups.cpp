#include "core/operations/groups.h"

#include "core/objects/group.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

Edit putInGroup(std::vector<ObjectId> objects, ObjectId group) {
    return [objects = std::move(objects), group](const Document& given) -> Result<Edited> {
        if (group && given.get<Group>(group) == nullptr) return badInput("the group is gone");
        Document d = given;
        for (const ObjectId id : objects)
            if (d.find(id) && d.get<Group>(id) == nullptr) d = withGroup(d, id, group);
        return d;
    };
}

Edit newGroup(std::vector<ObjectId> objects) {
    return [objects = std::move(objects)](const Document& given) -> Result<Edited> {
        ObjectId group;
        const Document d = given.added(document::freshName<Group>(given, "Group"), Group{"#3F5C73"}, &group);
        return putInGroup(objects, group)(d);
    };
}

}  // namespace erdwerk::operations
