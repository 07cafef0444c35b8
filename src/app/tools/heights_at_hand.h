#pragma once
// Heights at hand: the heights and grades of a line, typed beside it in the plan, point after point.

#include "app/plan/tool.h"

namespace erdwerk::app {

class HeightsAtHandTool : public Tool {
    Q_OBJECT
public:
    explicit HeightsAtHandTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] const linework::Line3D* line() const;
    [[nodiscard]] const linework::ResolvedLine* resolved() const;
    void go(std::size_t point);
    void goNext();

    ObjectId line_;
    std::optional<std::size_t> point_;  ///< the one that is typed
    std::optional<std::size_t> hover_;
};

}  // namespace erdwerk::app
