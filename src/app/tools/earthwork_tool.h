#pragma once
// Batters, pads and ponds: an edge, a side, slopes; the faces and their figures are shown while they are
// typed.

#include "app/plan/tool.h"
#include "core/derive/earthwork_build.h"
#include "core/earthwork/batter_text.h"
#include "core/objects/earthwork.h"

namespace erdwerk::app {

class EarthworkTool : public Tool {
    Q_OBJECT
public:
    EarthworkTool(Session& session, objects::EarthworkSort sort, QString title);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] QStringList completions() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    /// What would be made; an Error says why nothing would.
    [[nodiscard]] const Result<derive::EarthworkResult>& preview() const;

private:
    using Form = earthwork::BatterForm;
    [[nodiscard]] bool hasEdge() const;
    [[nodiscard]] bool isBatter() const { return object_.sort == objects::EarthworkSort::Batter; }
    void setEdge(ObjectId line);
    void sideAt(geometry::Vec2 place);
    /// One setting by its first word; an Error when it cannot be read, nothing when the word is another's.
    std::optional<Result<void>> setting(const QString& word, const std::string& rest);
    Result<void> takeKind(const std::string& name);
    Result<void> keepKind(const std::string& name);
    Result<void> setGround(const std::string& name);

    objects::Earthwork object_;
    bool sideChosen_ = false;
    bool rises_ = false;                                       ///< the slope of the cut was typed last
    std::vector<std::pair<objects::Earthwork, bool>> before_;  ///< for stepping back
    struct Ghost {
        std::shared_ptr<const derive::Derived> seen;
        objects::Earthwork object;
        Result<derive::EarthworkResult> made = derive::EarthworkResult{};
    };
    mutable Ghost ghost_;
};

}  // namespace erdwerk::app
