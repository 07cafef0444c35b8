#pragma once
// Finding all crests and toes in an area, and following one.

#include <memory>

#include "app/shell/latest_worker.h"
#include "app/tools/tool.h"
#include "core/document/dense_source.h"

namespace erdwerk::app {

/// How the ground bends in an area of a source, worked out in the background.
struct BendRequest {
    SnapshotPointer snapshot;
    ObjectId source;
    geometry::Box area;
};
struct BendAnswer {
    std::shared_ptr<const terrain::CreaseField> field;  ///< null: `problem` says why
    std::vector<terrain::Crease> found;                 ///< when they were asked for
    std::string problem;
};

/// All creases of an area as a preview: typed figures change it, clicks take single ones in or out, Enter
/// accepts.
class FindCreasesTool : public Tool {
    Q_OBJECT
public:
    explicit FindCreasesTool(Session& session);
    ~FindCreasesTool() override;
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    [[nodiscard]] bool working() const { return waiting_; }
    [[nodiscard]] const std::vector<terrain::Crease>& found() const { return answer_.found; }

private:
    struct Request {
        BendRequest bend;
        std::shared_ptr<const terrain::CreaseField> field;  ///< of an earlier answer
        terrain::CreaseOptions options;
    };
    void ask();
    /// Position of the found line near a place; their count when there is none.
    [[nodiscard]] std::size_t creaseAt(geometry::Vec2 place) const;

    ObjectId source_;
    ObjectId areaLine_;
    geometry::Box area_;
    terrain::CreaseOptions options_;
    BendAnswer answer_;
    std::vector<bool> off_;
    bool waiting_ = false;  ///< for an answer
    std::optional<Snap> hover_;
    mutable double pixel_ = 1;  ///< project units per pixel of the last picture
    std::unique_ptr<LatestWorker<Request, BendAnswer>> worker_;
};

/// Follows a crest or toe from a stretch that is drawn along it.
class TraceCreaseTool : public Tool {
    Q_OBJECT
public:
    explicit TraceCreaseTool(Session& session);
    ~TraceCreaseTool() override;
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    [[nodiscard]] bool working() const { return waiting_; }

private:
    /// A click, and what was followed on from it.
    struct Stretch {
        geometry::Vec3 clicked;
        std::vector<geometry::Vec3> followed;  ///< after the click
        std::optional<terrain::TraceStop> stop;
    };
    [[nodiscard]] terrain::Crease crease() const;
    [[nodiscard]] std::optional<geometry::Vec2> end() const;

    ObjectId source_;
    terrain::CreaseOptions options_;
    BendAnswer answer_;
    bool waiting_ = true;  ///< for the field
    std::vector<Stretch> stretches_;
    std::optional<terrain::CreaseKind> kind_;
    std::optional<terrain::Crease> ahead_;  ///< what the second click would follow
    std::optional<Snap> hover_;
    std::unique_ptr<LatestWorker<BendRequest, BendAnswer>> worker_;
};

}  // namespace erdwerk::app
