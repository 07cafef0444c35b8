#pragma once
// Labels what is clicked: a side, a curve, a point, a control, a station, the ground, a parcel.

#include "app/plan/tool.h"
#include "core/annotate/label_style.h"

namespace erdwerk::app {

class LabelTool : public Tool {
    Q_OBJECT
public:
    explicit LabelTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    /// What a click there would label; nothing where there is nothing that fits.
    [[nodiscard]] std::optional<document::Edit> editAt(const Snap& snap) const;
    [[nodiscard]] std::optional<annotate::LabelKind> kindAt(const Snap& snap) const;

    std::optional<annotate::LabelKind> what_;  ///< none: whatever is clicked
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
