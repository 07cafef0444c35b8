#pragma once
// Heights for flat lines: a preview of what gets which height from where, then all of it at once.

#include "app/plan/tool.h"
#include "core/linework/give_heights.h"

namespace erdwerk::app {

class GiveHeightsTool : public Tool {
    Q_OBJECT
public:
    explicit GiveHeightsTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void complete() override;
    [[nodiscard]] std::optional<ToolTable> table() const override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    [[nodiscard]] const linework::HeightsGiven& found() const { return found_; }

private:
    void find();

    std::vector<ObjectId> lines_;
    bool chosen_ = false;  ///< the lines were selected, not just all that are flat
    linework::GiveOptions options_;
    std::string prefix_;  ///< of texts that are heights
    linework::HeightsGiven found_;
    std::shared_ptr<const derive::Derived> seen_;
    std::string problem_;
    std::optional<geometry::Vec2> hover_;
};

}  // namespace erdwerk::app
