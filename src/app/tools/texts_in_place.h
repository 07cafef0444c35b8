#pragma once
// The style of a label, changed on the label itself: its texts are dragged to where they are to stand.

#include "app/plan/tool.h"
#include "core/annotate/label.h"

namespace erdwerk::app {

class TextsInPlaceTool : public Tool {
    Q_OBJECT
public:
    explicit TextsInPlaceTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    [[nodiscard]] std::vector<Snap> ownPlaces() const override;
    void pickUp(const Snap& snap) override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool escape() override;
    void leave() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] const objects::Label* label() const;
    [[nodiscard]] const annotate::LabelText* text() const;
    /// The change that puts the text in hand there.
    [[nodiscard]] document::Edit moved(geometry::Vec2 place) const;
    [[nodiscard]] document::Edit changed(std::function<void(annotate::LabelStyle&)> change) const;
    void put(geometry::Vec2 place);

    ObjectId label_;
    bool only_ = false;                  ///< this label alone gets a style of its own
    std::optional<std::size_t> inHand_;  ///< line of text that is dragged
    mutable ViewTransform view_;         ///< of the last picture: millimetres are of its paper
};

}  // namespace erdwerk::app
