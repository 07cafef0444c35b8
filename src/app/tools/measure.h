#pragma once
// Measures along clicks or typed places; what was measured can be kept as a 3D line.

#include "app/plan/tool.h"
#include "core/linework/measure.h"

namespace erdwerk::app {

class MeasureTool : public Tool {
    Q_OBJECT
public:
    explicit MeasureTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    bool stepForward() override;
    void complete() override;
    [[nodiscard]] std::optional<geometry::Vec2> origin() const override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    /// Of the places so far, with what is under the cursor as the next one.
    [[nodiscard]] linework::Measured measured() const;

private:
    [[nodiscard]] linework::MeasuredPlace placeOf(const Snap& snap) const;
    bool keep();
    std::vector<linework::MeasuredPlace> places_;
    std::vector<linework::MeasuredPlace> taken_;  ///< back by stepping, for stepping forward
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
