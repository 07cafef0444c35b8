#pragma once
// Draws a project in plan. The same code paints the screen, sheets, PDF and SVG.

#include <QPainter>
#include <QSet>
#include <atomic>

#include "app/base/session.h"
#include "app/plan/view_transform.h"

namespace erdwerk::app {

struct CutFillLayer;
struct Legend;

struct PlanOptions {
    double unit = 1;      ///< picture units per screen pixel (line widths and text sizes are given in pixels)
    bool shading = true;  ///< height colours and hillshade, as a raster
    bool gridCrosses = true;
    bool pointTexts = true;
    bool source = true;  ///< clouds and backdrops
    bool ground = true;  ///< surfaces
    std::shared_ptr<const CutFillLayer> cutFill = {};
    const std::atomic<bool>* cancel = nullptr;
};

/// Paints one snapshot. Only reads values, so it may run on any thread.
class PlanPainter {
public:
    PlanPainter(QPainter& painter, const Snapshot& snapshot, const ViewTransform& view, PlanOptions options);
    ~PlanPainter();
    void paint();

private:
    void surfaces();
    void shading(ObjectId id, const objects::SurfaceStyle& style);
    void triangles(const terrain::TinLocator& surface);
    void contours(ObjectId id, const objects::SurfaceStyle& style);
    void contourHeight(const terrain::Contour& line);
    void grid();
    void rimTexts();
    void lines();
    void line(ObjectId id, const objects::Object& object, const linework::ResolvedLine& resolved);
    void hachures(const linework::ResolvedLine& resolved);
    void alignments();
    void parcels();
    void points();
    void labels();
    [[nodiscard]] bool stopped() const { return options_.cancel != nullptr && options_.cancel->load(); }
    [[nodiscard]] bool visible(ObjectId id) const;
    [[nodiscard]] QPen pen(const QColor& colour, double pixels, Qt::PenStyle style = Qt::SolidLine) const;
    [[nodiscard]] QFont font(int pixels, bool strong = false) const;
    void textAlong(QPointF at, double degrees, const QString& above, const QString& below,
                   const QColor& colour, int pixels);
    void haloText(const QRectF& room, Qt::Alignment alignment, const QString& text, const QColor& colour);
    /// Takes a cell of the picture for a text; false when another text has it already.
    bool claim(const QRectF& area);

    QPainter& painter_;
    const Snapshot& snapshot_;
    const derive::Derived& derived_;
    const document::Document& document_;
    ViewTransform view_;
    PlanOptions options_;
    geometry::Box window_;
    QSet<QPair<int, int>> claimed_;
    std::vector<Legend> legends_;
    bool overBackdrop_ = false;
};

/// The flattened path in picture coordinates.
QPolygonF polyline(const geometry::Path& path, const ViewTransform& view);

}  // namespace erdwerk::app
