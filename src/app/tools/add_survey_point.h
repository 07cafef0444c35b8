#pragma once
// Sets survey points on a cloud, a raster or a surface: number proposed, code completed, height shown first.

#include "app/plan/tool.h"

namespace erdwerk::app {

class PlacePointTool : public Tool {
    Q_OBJECT
public:
    explicit PlacePointTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    [[nodiscard]] QStringList completions() const override;
    void repick(std::size_t chip) override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    void propose();
    [[nodiscard]] std::optional<double> heightAt(const Snap& snap) const;
    void setPoint(geometry::Vec2 place, std::optional<double> height);

    ObjectId source_;  ///< of heights; none: the surface on top
    std::string number_;
    std::string code_;
    std::optional<Snap> hover_;
    std::optional<double> hoverHeight_;
    std::size_t made_ = 0;
};

}  // namespace erdwerk::app
