#pragma once
// Heights for flat lines: a preview of what gets which height from where, then all of it at once.

#include "app/plan/tool.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

class GiveHeightsTool : public Tool {
    Q_OBJECT
public:
    explicit GiveHeightsTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    [[nodiscard]] std::optional<ToolTable> table() const override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    [[nodiscard]] const linework::HeightsGiven& found() const { return found_; }

private:
    /// Who takes part, as it was picked or typed; kept to go back to.
    struct Sides {
        std::vector<ObjectId> taking;
        std::vector<ObjectId> giving;
    };
    void find();
    /// Puts a line on its side, or takes it off.
    void toggle(ObjectId line);
    void put(std::vector<ObjectId> lines, bool taking);
    [[nodiscard]] bool isFlat(ObjectId line) const;
    bool enterSide(bool taking, const QString& name);

    Sides sides_;
    std::vector<Sides> before_;
    linework::GiveOptions options_;
    std::string prefix_;  ///< of texts that are heights
    linework::HeightsGiven found_;
    std::vector<operations::SteepStretch> steep_;
    std::shared_ptr<const derive::Derived> seen_;
    std::string problem_;
    std::optional<geometry::Vec2> hover_;
};

}  // namespace erdwerk::app
