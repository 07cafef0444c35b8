#pragma once
// What became of the parts of objects in an edit: the vertices and sides of lines, the points of sets.
// Anything that names a part of another object is carried along by it.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/document/document.h"
#include "core/objects/kind.h"

namespace erdwerk::document {

using objects::Part;

/// Vertices are known by their places: those that an edit leaves where they are keep their identity through
/// inserting, deleting, splitting, joining, reversing, closing. When no vertex was added or taken away, nor
/// went to another line, each is itself, wherever it moved. A side follows the corner it starts at; through a
/// reversal, its two corners. Points of a set are known by themselves in their order.
class EditTrace : public objects::Carry {
public:
    EditTrace() = default;
    /// Costs about as much as the objects that differ are large.
    EditTrace(const Document& before, const Document& after);

    /// Where a vertex of a line, or a point of a set, is now; nothing when it is gone.
    [[nodiscard]] std::optional<Part> vertex(Part before) const override;
    /// Where a side (segment of the plan path) is now; nothing when it is gone.
    [[nodiscard]] std::optional<Part> side(Part before) const override;
    [[nodiscard]] bool isPoints(ObjectId before) const override;
    [[nodiscard]] const linework::Line3D* lineBefore(ObjectId id) const override;
    [[nodiscard]] const linework::Line3D* lineAfter(ObjectId id) const override;
    /// Where a place on an object is now: at its vertex (within `tolerance`), else the same fraction of its
    /// side; itself when the object did not change, nothing when that part is gone.
    [[nodiscard]] std::optional<std::pair<ObjectId, geometry::Vec2>> place(ObjectId object, geometry::Vec2 at,
                                                                           double tolerance) const;
    /// The object as it was named before: another one when a join took it in; nothing when it is gone.
    [[nodiscard]] std::optional<ObjectId> object(ObjectId before) const;
    [[nodiscard]] bool empty() const { return parts_.empty(); }
    /// Carrying what names parts went on from the document after the edit to this one, of which more may be
    /// gone.
    void endsWith(const Document& after);

private:
    struct Parts {
        std::vector<std::optional<Part>> vertices;
        std::vector<std::optional<Part>> sides;
        bool gone = false;
        std::size_t kept = 0;  ///< so many points are what they were, each in its position
    };
    void tracePoints(ObjectId id, const objects::Points& before, const objects::Points& after);
    void traceAlignment(ObjectId id);
    void traceLine(ObjectId id, const linework::Line3D& before,
                   const std::vector<std::pair<ObjectId, const linework::Line3D*>>& after);

    std::map<ObjectId, Parts> parts_;
    Document before_;
    Document after_;
};

/// The edited document with all that names parts of objects carried along; what named a part that is gone is
/// gone, and `lost` says so in words ("label Plot course 1", "accepted finding"). `before` is the document
/// the edit was given, `trace` that of both.
Document withPartsCarried(const Document& before, const Document& after, const EditTrace& trace,
                          std::vector<std::string>* lost = nullptr);

}  // namespace erdwerk::document
