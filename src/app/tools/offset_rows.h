#pragma once
// Rows beside a line: each a run and a height, shown while they are typed.

#include "app/plan/tool.h"
#include "core/linework/offset.h"

namespace erdwerk::app {

class OffsetRowsTool : public Tool {
    Q_OBJECT
public:
    explicit OffsetRowsTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] bool hasLine() const;
    void sideAt(geometry::Vec2 place);

    ObjectId line_;
    std::vector<linework::OffsetRow> rows_;
    std::vector<QString> typed_;
    linework::OffsetOptions options_;
    bool sideChosen_ = false;
    std::string set_;     ///< the name of the set that the rows are
    bool loose_ = false;  ///< the rows do not follow the line
    // The rows as they would be, and what they were worked out from.
    struct Ghost {
        std::shared_ptr<const derive::Derived> seen;
        ObjectId line;
        std::vector<linework::OffsetRow> rows;
        linework::OffsetOptions options;
        Result<std::vector<linework::Line3D>> made = std::vector<linework::Line3D>{};
    };
    mutable Ghost ghost_;
};

}  // namespace erdwerk::app
