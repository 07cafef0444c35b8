#pragma once
// The document is a value: an immutable snapshot that shares unchanged objects with the snapshots before it.

#include <memory>
#include <set>
#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/document/object_map.h"
#include "core/geometry/vec.h"
#include "core/objects/object.h"
#include "core/objects/plan_part.h"

namespace erdwerk::document {

// A document speaks of its objects as of its own.
using objects::Payload;

/// A finding that is meant to be so.
struct Accepted {
    std::string kind;
    geometry::Vec2 at;
    std::vector<ObjectId> objects;
    std::string reason;
    friend bool operator==(const Accepted&, const Accepted&) = default;
};

/// From when on a check speaks, in project units.
struct CheckLimits {
    double near = 0.02;   ///< two points closer than this are near-duplicates
    double touch = 0.10;  ///< a line that ends this close to another nearly touches it
    // A pad or pond that goes beyond one of these is large; 0: by the size of its edge.
    double earth = 0;       ///< cut or fill in place, in cubic units
    double reach = 0;       ///< of its slopes in plan, from the edge
    double depth = 0;       ///< of its slopes, up or down from the edge
    double steepest = 0.5;  ///< rise over run, of a line that gets heights from others; 0: none is too steep
    friend bool operator==(const CheckLimits&, const CheckLimits&) = default;
};

struct Settings {
    std::string name = "Untitled";
    DisplaySettings display;
    CheckLimits checks;
    std::vector<Accepted> accepted;
    friend bool operator==(const Settings&, const Settings&) = default;
};

/// What the views show. No result depends on it.
struct Shown {
    std::set<ObjectId> hidden;  ///< objects; a group stands for its members
    objects::PlanPartsOff off;  ///< parts of the plan
    friend bool operator==(const Shown&, const Shown&) = default;
};

/// An object that has no identity yet.
struct NewObject {
    std::string name;
    Payload payload;
    ObjectId group = {};
};

/// Copying shares all objects. Edits return another document.
class Document {
public:
    using Objects = ObjectMap;

    Document();
    Document(const Document&);
    Document(Document&&) noexcept;
    Document& operator=(const Document&);
    Document& operator=(Document&&) noexcept;
    ~Document();

    [[nodiscard]] const Settings& settings() const { return *settings_; }
    [[nodiscard]] const std::shared_ptr<const Settings>& settingsPointer() const { return settings_; }
    [[nodiscard]] const Shown& shown() const { return *shown_; }
    [[nodiscard]] const std::shared_ptr<const Shown>& shownPointer() const { return shown_; }
    [[nodiscard]] const Objects& objects() const { return objects_; }
    [[nodiscard]] std::uint64_t nextId() const { return nextId_; }
    /// Null when there is no such object.
    [[nodiscard]] std::shared_ptr<const Object> find(ObjectId id) const;
    /// The payload, when the object exists and is of this kind.
    template <class T>
    [[nodiscard]] const T* get(ObjectId id) const {
        const auto it = objects_.find(id);
        return it == objects_.end() ? nullptr : it->second->payload.template as<T>();
    }
    /// Ids of all objects of a kind, in the order they were made.
    template <class T>
    [[nodiscard]] std::vector<ObjectId> all() const {
        std::vector<ObjectId> out;
        for (const auto& [id, object] : objects_)
            if (object->payload.template is<T>()) out.push_back(id);
        return out;
    }
    /// First object of a kind with this name (exactly as written).
    template <class T>
    [[nodiscard]] ObjectId byName(const std::string& name) const {
        for (const auto& [id, object] : objects_)
            if (object->name == name && object->payload.template is<T>()) return id;
        return {};
    }
    [[nodiscard]] std::string nameOf(ObjectId id) const;
    /// It is hidden, or its group is.
    [[nodiscard]] bool hidden(const Object& object) const;

    [[nodiscard]] Document withSettings(Settings settings) const;
    [[nodiscard]] Document withShown(Shown shown) const;
    /// Ids below this are never given out again, even if no object has them.
    [[nodiscard]] Document withNextId(std::uint64_t nextId) const;
    /// Adds or replaces, by the object's id (which must not be none).
    [[nodiscard]] Document with(Object object) const;
    /// Replaces the payload of an object that exists.
    [[nodiscard]] Document withPayload(ObjectId id, Payload payload) const;
    /// Adds a new object; `id` receives its identity.
    [[nodiscard]] Document added(std::string name, Payload payload, ObjectId* id = nullptr,
                                 ObjectId group = {}) const;
    /// Adds many at once.
    [[nodiscard]] Document addedAll(std::vector<NewObject> objects) const;
    /// Removes an object and what cannot be without it: labels of it, its place among the sources of
    /// surfaces, the alignments and parcels on it and what stands on those.
    [[nodiscard]] Document without(ObjectId id) const;
    /// Removes just this object. For replaying changes.
    [[nodiscard]] Document withoutOnly(ObjectId id) const;
    /// What named an object that is gone no longer does, or goes too.
    [[nodiscard]] Document withoutUsesOf(ObjectId id) const;

private:
    std::shared_ptr<const Settings> settings_ = std::make_shared<const Settings>();
    std::shared_ptr<const Shown> shown_ = std::make_shared<const Shown>();
    Objects objects_;
    std::uint64_t nextId_ = 1;
};

/// A name that no object of the same kind has yet: "Line 1", "Line 2" …
template <class T>
std::string freshName(const Document& document, const std::string& stem) {
    for (int i = 1;; ++i) {
        std::string name = stem + " " + std::to_string(i);
        if (!document.byName<T>(name)) return name;
    }
}

/// Objects that name this one.
std::vector<ObjectId> dependents(const Document& document, ObjectId id);

/// Changes a payload of type T in place; nothing when the object is not one.
template <class T, class Change>
Document changed(const Document& document, ObjectId id, const Change& change) {
    const T* old = document.get<T>(id);
    if (old == nullptr) return document;
    T next = *old;
    change(next);
    return document.withPayload(id, std::move(next));
}

/// The objects that differ between two documents.
struct Change {
    std::vector<ObjectId> changed;  ///< added or replaced
    std::vector<ObjectId> removed;
    bool settings = false;
    bool shown = false;
    [[nodiscard]] bool empty() const { return changed.empty() && removed.empty() && !settings && !shown; }
};
/// Costs what differs, when one came from the other.
Change difference(const Document& before, const Document& after);

}  // namespace erdwerk::document
