#pragma once
// Following one crest or toe.

#include "app/tools/creases.h"

namespace erdwerk::app {

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
    void leave() override;
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
