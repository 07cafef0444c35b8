#pragma once
// Telling the ground of a cloud from what stands on it.

#include "app/base/latest_worker.h"
#include "app/plan/tool.h"
#include "core/base/id.h"
#include "core/terrain/ground.h"

namespace erdwerk::app {

/// Ground and the rest as a preview: typed figures change it, Enter keeps it as classes.
class FindGroundTool : public Tool {
    Q_OBJECT
public:
    explicit FindGroundTool(Session& session);
    ~FindGroundTool() override;
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    [[nodiscard]] bool working() const { return waiting_; }

private:
    struct Request {
        std::shared_ptr<const survey::PointCloud> cloud;
        terrain::GroundOptions options;
    };
    struct Answer {
        std::vector<std::uint8_t> classes;  ///< of all points; empty when there is a problem
        std::size_t ground = 0;
        std::string problem = {};
    };
    static std::optional<Answer> work(const Request& request, const std::atomic<bool>& cancel);
    void ask();

    ObjectId cloud_;
    std::shared_ptr<const survey::PointCloud> of_;  ///< what the answer is about
    terrain::GroundOptions options_;
    Answer answer_;
    bool waiting_ = false;
    std::unique_ptr<LatestWorker<Request, Answer>> worker_;
};

}  // namespace erdwerk::app
