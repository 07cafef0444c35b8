#pragma once
// What is selected and what lies under the cursor: one of each for all views.

#include <QObject>
#include <optional>
#include <vector>

#include "core/base/id.h"
#include "core/geometry/vec.h"

namespace erdwerk::document {
class Document;
class EditTrace;
}  // namespace erdwerk::document

namespace erdwerk::app {

/// An object, or a part of it: a point of a set, a vertex of a line.
struct Ref {
    ObjectId object;
    std::optional<std::size_t> part;
    friend bool operator==(const Ref&, const Ref&) = default;
};

/// The same object or part after an edit; nothing when it is gone.
std::optional<Ref> refAfter(const Ref& ref, const document::EditTrace& trace,
                            const document::Document& after);

/// A place that every view marks.
struct Hover {
    geometry::Vec2 place;
    std::optional<Ref> ref;        ///< what lies there
    std::optional<double> height;  ///< of the hovered thing or the surface
};

/// A range of what is selected, in the order in which it was picked.
class Selection : public QObject {
    Q_OBJECT
public:
    using value_type = Ref;
    using const_iterator = std::vector<Ref>::const_iterator;

    using QObject::QObject;

    [[nodiscard]] const std::vector<Ref>& refs() const { return refs_; }
    [[nodiscard]] const_iterator begin() const { return refs_.begin(); }
    [[nodiscard]] const_iterator end() const { return refs_.end(); }
    [[nodiscard]] bool empty() const { return refs_.empty(); }
    [[nodiscard]] std::size_t size() const { return refs_.size(); }
    [[nodiscard]] const Ref& front() const { return refs_.front(); }
    /// The object, or a part of it.
    [[nodiscard]] bool holds(ObjectId id) const;
    void set(std::vector<Ref> refs);
    /// What is selected is the same after an edit; what is gone is no longer selected.
    void carry(const document::EditTrace& trace, const document::Document& after);

    [[nodiscard]] const std::optional<Hover>& hover() const { return hover_; }
    void setHover(const std::optional<Hover>& hover);

    void clear();

Q_SIGNALS:
    void changed();
    void hoverChanged();
    void goToPlace(geometry::Vec2 place);  ///< all views move there

private:
    std::vector<Ref> refs_;
    std::optional<Hover> hover_;
};

}  // namespace erdwerk::app
