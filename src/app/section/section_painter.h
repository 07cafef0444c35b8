#pragma once
// Draws a long-section on any picture: the bench, a sheet, a file.

#include <QFont>
#include <QPainter>

#include "app/section/section_data.h"

namespace erdwerk::app {

/// Where places of a section lie in the picture.
struct SectionFrame {
    QRectF area;
    double minX = 0, maxX = 1, minZ = 0, maxZ = 1;
    [[nodiscard]] QPointF map(double x, double z) const;
    [[nodiscard]] double distanceAt(double px) const;
    [[nodiscard]] double heightAt(double py) const;
    [[nodiscard]] double exaggeration() const;
};

struct SectionLook {
    double unit = 1;      ///< picture units per screen pixel (line widths and text sizes are given in pixels)
    double perUnit = 0;   ///< picture units per unit of distance; 0: all of it
    double scrolled = 0;  ///< distance at the left edge from the beginning, where `perUnit` is given
    double highPerUnit = 0;                  ///< picture units per unit of height; 0: by the exaggeration
    std::optional<std::size_t> active = {};  ///< handle
    bool handles = true;
    bool legend = true;
};

class SectionPainter {
public:
    SectionPainter(QPainter& painter, const SectionData& data, const SectionLook& look)
        : painter_(painter), data_(data), look_(look), u_(look.unit) {}
    /// For a picture of this size and place.
    static SectionFrame frameFor(const SectionData& data, const QRectF& room, const SectionLook& look);
    /// From its beginning to its end.
    static std::pair<double, double> extent(const SectionData& data);
    /// What the rows under it need.
    static double rowsHeight(const SectionData& data, double unit);
    void paint(const SectionFrame& f);

private:
    [[nodiscard]] QFont font(int pixels, bool strong = false) const;
    [[nodiscard]] QPen pen(const QColor& colour, double width, Qt::PenStyle style = Qt::SolidLine) const;
    void spans(const SectionFrame& f);
    void grid(const SectionFrame& f);
    void legend(const SectionFrame& f);
    void rows(const SectionFrame& f);
    void difference(const SectionFrame& f);
    void series(const SectionFrame& f);
    void handles(const SectionFrame& f);
    void marks(const SectionFrame& f);

    QPainter& painter_;
    const SectionData& data_;
    const SectionLook& look_;
    double u_;
};

}  // namespace erdwerk::app
