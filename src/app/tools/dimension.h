#pragma once
// Makes dimensions: what is measured is picked, then where the dimension line lies.

#include "app/plan/tool.h"
#include "core/objects/dimension.h"

namespace erdwerk::app {

class DimensionTool : public Tool {
    Q_OBJECT
public:
    explicit DimensionTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
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
    /// Everything is picked but where the line lies.
    [[nodiscard]] bool placing() const;
    /// The dimension as it would be with its line through a place.
    [[nodiscard]] objects::Dimension through(geometry::Vec2 place) const;
    void carry(const document::EditTrace& trace);
    void make(const objects::Dimension& dimension);

    annotate::DimensionKind kind_ = annotate::DimensionKind::Aligned;
    std::optional<Angle> azimuth_;  ///< typed
    std::vector<objects::Anchor> anchors_;
    QStringList names_;
    bool enough_ = false;  ///< no more places of a chain
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
