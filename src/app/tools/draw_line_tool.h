#pragma once
// Draws a 3D line corner by corner, clicked or typed, with a height rule at each.

#include "app/tools/tool.h"
#include "core/base/notation.h"
#include "core/linework/line3d.h"

namespace erdwerk::app {

class DrawLineTool : public Tool {
    Q_OBJECT
public:
    explicit DrawLineTool(Session& session);
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
    [[nodiscard]] const linework::Line3D& line() const { return line_; }

private:
    void continueLine(const Snap& snap);
    void addCorner(geometry::Vec2 place, linework::HeightRule rule);
    [[nodiscard]] linework::HeightRule ruleFor(const Snap& snap) const;
    [[nodiscard]] bool enterPlace(const PlaceEntry& entry);
    [[nodiscard]] std::optional<geometry::Vec2> throughFor(geometry::Vec2 place) const;
    void remember();

    linework::Line3D line_;
    std::vector<linework::Line3D> before_;  ///< for stepping back
    std::vector<linework::Line3D> after_;   ///< for stepping forward again
    ObjectId continues_;                    ///< the line that is continued
    bool fromItsStart_ = false;
    bool arc_ = false;  ///< the next side is a tangent arc
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
