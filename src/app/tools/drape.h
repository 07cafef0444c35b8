#pragma once
// Lays lines on a surface, with an amount and as many vertices as are wanted.

#include "app/plan/tool.h"
#include "core/linework/drape.h"

namespace erdwerk::app {

class DrapeTool : public Tool {
    Q_OBJECT
public:
    explicit DrapeTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] ObjectId surface() const;
    void drape(ObjectId line);

    ObjectId line_;                    ///< selected before
    std::optional<ObjectId> surface_;  ///< chosen by its chip
    std::optional<ObjectId> hover_;
    linework::DrapeOptions options_;
    bool asValues_ = false;
    std::optional<std::pair<double, double>> stretch_;  ///< distances along the line
};

}  // namespace erdwerk::app
