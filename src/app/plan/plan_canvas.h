#pragma once
// What layers paint on: the picture, what is painted and how large, and the means that all of them use.

#include <QImage>
#include <QPainter>
#include <array>
#include <atomic>
#include <functional>

#include "app/base/session.h"
#include "app/plan/plan_texts.h"
#include "app/plan/view_transform.h"
#include "core/geometry/path.h"

namespace erdwerk::app {

struct CutFillLayer;

/// What is painted one after the other, from below.
enum class PlanPass {
    Backdrops,
    DenseBelow,  ///< points of clouds that a visible surface was made from
    Colours,     ///< of the ground
    Dense,       ///< points of clouds, over the colours and under the lines
    Ground,      ///< contours and triangles
    Linework,
    Routes,
    Records,
    Texts,
    Points,
    ContourHeights  ///< they give way to all other texts
};
inline constexpr std::array allPasses{PlanPass::Backdrops, PlanPass::DenseBelow,    PlanPass::Colours,
                                      PlanPass::Dense,     PlanPass::Ground,        PlanPass::Linework,
                                      PlanPass::Routes,    PlanPass::Records,       PlanPass::Texts,
                                      PlanPass::Points,    PlanPass::ContourHeights};

struct PlanOptions {
    double unit = 1;  ///< picture units per screen pixel (line widths and text sizes are given in pixels)
    objects::PlanPartsOff off = {};
    bool source = true;  ///< clouds and backdrops
    bool ground = true;  ///< surfaces
    std::shared_ptr<const CutFillLayer> cutFill = {};
    const std::atomic<bool>* cancel = nullptr;
    bool frame = false;  ///< of a sheet: what is written stays within the picture
    /// Whether an object is shown; none: as the document says.
    std::function<bool(const objects::Object&)> showsObject = {};
    /// By which the lines of a pass are wider than on the screen; 0: by nothing.
    std::array<double, allPasses.size()> widths = {};
    /// In the picture: what is drawn over it later; texts keep off.
    std::vector<annotate::TextBox> taken = {};
    /// Told before something is painted in a pass: for pictures in layers. What is written comes with Texts.
    std::function<void(PlanPass)> begins = {};
    [[nodiscard]] bool shows(objects::PlanPart part) const { return off.count(part) == 0; }
};

/// What the colours of a layer mean. Painted over everything else.
struct Legend {
    QString title;
    std::vector<std::pair<QColor, QString>> rows;
};

/// Square cells with values, rows from the south; nothing where a value is not a number.
struct CellMap {
    geometry::Vec2 origin;  ///< south-west corner
    double cell = 1;
    int columns = 0;
    int rows = 0;
    const std::vector<float>& values;
};

class PlanCanvas {
public:
    PlanCanvas(QPainter& p, const Snapshot& shown, const ViewTransform& at, PlanOptions how);

    QPainter& painter;
    const Snapshot& snapshot;
    const derive::Derived& derived;
    const document::Document& document;
    const ViewTransform view;
    const PlanOptions options;
    const geometry::Box window;  ///< of the ground
    /// Of the ground whose texts are placed: more than the window, in steps, so that those of the window stay
    /// where they are while it moves.
    const geometry::Box textWindow;
    const double unit;  ///< as in options
    std::vector<Legend> legends;
    PlanTexts texts;
    PlanPass pass = PlanPass::Backdrops;  ///< that is being painted
    bool overBackdrop = false;  ///< a backdrop is shown: what covers the ground only hints at itself

    [[nodiscard]] bool stopped() const { return options.cancel != nullptr && options.cancel->load(); }
    [[nodiscard]] QPen pen(const QColor& colour, double pixels, Qt::PenStyle style = Qt::SolidLine) const;
    [[nodiscard]] QFont font(int pixels, bool strong = false) const;
    /// As large as the picture, each of its cells so many screen pixels wide; transparent.
    [[nodiscard]] QImage image(double pixelsPerCell) const;
    /// Of the labels, by label; made when it is asked for.
    const std::map<ObjectId, std::string>& tags();
    void cells(const CellMap& map, const std::function<QColor(double)>& colour);

private:
    std::optional<std::map<ObjectId, std::string>> tags_;
};

/// The flattened path in picture coordinates.
QPolygonF polyline(const geometry::Path& path, const ViewTransform& view);

}  // namespace erdwerk::app
