#pragma once
// What a kind of object is in the 3D view. The view knows kinds by this only.

#include <QColor>
#include <array>
#include <functional>
#include <memory>
#include <variant>
#include <vector>

#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "core/base/id.h"
#include "core/geometry/path.h"
#include "core/terrain/tin.h"

namespace erdwerk::objects {
struct Picture;
}

namespace erdwerk::app {

/// Triangles of ground.
struct SceneMesh {
    ObjectId id;
    std::shared_ptr<const void> made;  ///< what the triangles belong to: another one means other triangles
    const terrain::Tin* tin = nullptr;
    bool coloured = true;  ///< by height
};

/// Many points, of which as many are taken as can be told apart.
struct SceneDense {
    using Take = std::function<void(const geometry::Vec3&, QRgb)>;
    ObjectId id;
    std::shared_ptr<const void> made;
    double spacing = 1;  ///< of all
    /// Gives at most so many points of a window, spread evenly.
    std::function<void(const geometry::Box&, std::size_t, const Take&)> sample;
};

/// A line in space.
struct SceneStroke {
    std::vector<geometry::Vec3> places;
    QColor colour;
    float width = 1;  ///< in pixels
};

/// What is shown of one set of results.
class SceneContent {
public:
    SceneContent() = default;
    SceneContent(SnapshotPointer snapshot, std::vector<Ref> selection);

    [[nodiscard]] const derive::Derived& derived() const { return snapshot_->derived; }
    [[nodiscard]] bool isOf(const SnapshotPointer& snapshot, const std::vector<Ref>& selection) const {
        return snapshot_ == snapshot && selection_ == selection;
    }
    [[nodiscard]] bool selected(ObjectId id) const;

    void addMesh(SceneMesh mesh, double lowest, double highest);
    void addDense(SceneDense dense, const geometry::Box& bounds, double lowest, double highest);
    void addStroke(SceneStroke stroke);
    /// Plan geometry without heights of its own lies on the ground.
    void addOnGround(const geometry::Path& path, const QColor& colour, float width);
    /// A picture that covers the ground; the last one shown is seen.
    void drape(std::shared_ptr<const objects::Picture> picture) { picture_ = std::move(picture); }

    [[nodiscard]] const std::vector<SceneMesh>& meshes() const { return meshes_; }
    [[nodiscard]] const std::vector<SceneDense>& dense() const { return dense_; }
    [[nodiscard]] const std::vector<SceneStroke>& strokes() const { return strokes_; }
    [[nodiscard]] const std::shared_ptr<const objects::Picture>& picture() const { return picture_; }
    /// Of the ground; of the strokes when there is none.
    struct Extent {
        geometry::Box plan;
        double low = 0;
        double high = 0;
    };
    [[nodiscard]] Extent extent() const;

private:
    SnapshotPointer snapshot_;
    std::vector<Ref> selection_;
    std::vector<SceneMesh> meshes_;
    std::vector<SceneDense> dense_;
    std::vector<SceneStroke> strokes_;
    std::shared_ptr<const objects::Picture> picture_;
    Extent ground_{{}, 1e300, -1e300};
};

class SceneLayer {
public:
    SceneLayer() = default;
    SceneLayer(const SceneLayer&) = delete;
    SceneLayer& operator=(const SceneLayer&) = delete;
    virtual ~SceneLayer() = default;
    /// Adds what is seen of a visible object.
    virtual void show(SceneContent& content, ObjectId id) const = 0;
};

/// One for each kind, in the order of the kinds.
using SceneLayers = std::array<const SceneLayer*, objects::kindCount>;

SceneContent contentOf(const SnapshotPointer& snapshot, const std::vector<Ref>& selection,
                       const SceneLayers& layers);

}  // namespace erdwerk::app
