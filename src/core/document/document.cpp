#include "core/document/document.h"

#include <algorithm>
#include <cassert>

namespace erdwerk::document {

Document::Document() = default;
Document::Document(const Document&) = default;
Document::Document(Document&&) noexcept = default;
Document& Document::operator=(const Document&) = default;
Document& Document::operator=(Document&&) noexcept = default;
Document::~Document() = default;

std::shared_ptr<const Object> Document::find(ObjectId id) const {
    const auto it = objects_.find(id);
    return it == objects_.end() ? nullptr : it->second;
}

std::string Document::nameOf(ObjectId id) const {
    const auto object = find(id);
    return object ? object->name : std::string();
}

bool Document::hidden(const Object& object) const {
    return shown_->hidden.count(object.id) != 0 || (object.group && shown_->hidden.count(object.group) != 0);
}

Document Document::withSettings(Settings settings) const {
    Document out = *this;
    out.settings_ = std::make_shared<const Settings>(std::move(settings));
    return out;
}

Document Document::withShown(Shown shown) const {
    Document out = *this;
    out.shown_ = std::make_shared<const Shown>(std::move(shown));
    return out;
}

Document Document::withNextId(std::uint64_t nextId) const {
    Document out = *this;
    out.nextId_ = std::max(out.nextId_, nextId);
    return out;
}

Document Document::with(Object object) const {
    assert(object.id);
    Document out = *this;
    const ObjectId id = object.id;
    out.nextId_ = std::max(out.nextId_, id.value + 1);
    out.objects_.set(std::make_shared<const Object>(std::move(object)));
    return out;
}

Document Document::withPayload(ObjectId id, Payload payload) const {
    const auto object = find(id);
    assert(object);
    return with({id, object->name, object->group, std::move(payload)});
}

Document Document::added(std::string name, Payload payload, ObjectId* id, ObjectId group) const {
    const ObjectId fresh{nextId_};
    if (id != nullptr) *id = fresh;
    return with({fresh, std::move(name), group, std::move(payload)});
}

Document Document::addedAll(std::vector<NewObject> objects) const {
    Document out = *this;
    for (NewObject& o : objects) {
        const ObjectId id{out.nextId_++};
        out.objects_.set(
            std::make_shared<const Object>(Object{id, std::move(o.name), o.group, std::move(o.payload)}));
    }
    return out;
}

Document Document::withoutOnly(ObjectId id) const {
    Document out = *this;
    out.objects_.erase(id);
    return out;
}

std::vector<ObjectId> dependents(const Document& document, ObjectId id) {
    std::vector<ObjectId> out;
    if (!id) return out;
    for (const auto& [other, object] : document.objects()) {
        const auto named = objects::references(object->payload);
        if (object->group == id || std::find(named.begin(), named.end(), id) != named.end())
            out.push_back(other);
    }
    return out;
}

Document Document::without(ObjectId id) const {
    return withoutOnly(id).withoutUsesOf(id);
}

Document Document::withoutUsesOf(ObjectId id) const {
    Document out = *this;
    for (const ObjectId other : dependents(*this, id)) {
        const auto object = out.find(other);
        if (!object) continue;
        if (object->group == id) {
            Object freed = *object;
            freed.group = {};
            out = out.with(std::move(freed));
            continue;
        }
        auto next = objects::without(object->payload, id);
        out = next ? out.withPayload(other, std::move(*next)) : out.without(other);
    }
    return out;
}

Change difference(const Document& before, const Document& after) {
    Change change;
    change.settings = before.settingsPointer() != after.settingsPointer();
    change.shown = before.shownPointer() != after.shownPointer();
    auto objects = ObjectMap::difference(before.objects(), after.objects());
    change.changed = std::move(objects.changed);
    change.removed = std::move(objects.removed);
    return change;
}

}  // namespace erdwerk::document
