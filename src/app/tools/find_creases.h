#pragma once
// Finding all crests and toes in an area.

#include "app/tools/creases.h"

namespace erdwerk::app {

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

}  // namespace erdwerk::app
