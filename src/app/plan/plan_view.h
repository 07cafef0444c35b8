#pragma once
// The plan: shows the last picture at once, moved, while a finer one is painted in the background.

#include <QImage>
#include <QWidget>
#include <optional>

#include "app/base/latest_worker.h"
#include "app/base/press.h"
#include "app/base/session.h"
#include "app/plan/cut_fill.h"
#include "app/plan/plan_layer.h"
#include "app/plan/tool.h"
#include "core/base/id.h"

namespace erdwerk::app {

class PlanView : public QWidget {
    Q_OBJECT
public:
    PlanView(Session& session, const PlanLayers& layers, QWidget* parent = nullptr);
    ~PlanView() override;

    [[nodiscard]] const ViewTransform& view() const { return view_; }
    void setView(geometry::Vec2 centre, double scale);
    void fit();
    void fitTo(const geometry::Box& box);
    /// What is shown of dense sources and surfaces: one faded over the other (0: only sources, 1: only
    /// surfaces), or both as usual.
    void setFade(std::optional<double> surfaces);
    [[nodiscard]] const std::optional<double>& fade() const { return fade_; }
    void setCutFill(std::shared_ptr<const CutFillLayer> layer);
    /// The tool that gets clicks and keys; null selects.
    void setTool(Tool* tool);
    [[nodiscard]] const std::optional<Snap>& snap() const { return snap_; }
    /// The finer picture is there.
    [[nodiscard]] bool settled() const;
    [[nodiscard]] QSize sizeHint() const override { return {760, 420}; }

Q_SIGNALS:
    void cursorMoved(std::optional<geometry::Vec2> place);
    void viewChanged();
    void typed(const QString& text);  ///< a key that belongs to the prompt line's entry
    void deletePressed();
    /// A right click without dragging, or the menu key: on the screen, and what lies there.
    void menuWanted(QPoint at, std::optional<Ref> under);

protected:
    void paintEvent(QPaintEvent* event) override;
    void resizeEvent(QResizeEvent* event) override;
    void mousePressEvent(QMouseEvent* event) override;
    void mouseMoveEvent(QMouseEvent* event) override;
    void mouseReleaseEvent(QMouseEvent* event) override;
    void mouseDoubleClickEvent(QMouseEvent* event) override;
    void wheelEvent(QWheelEvent* event) override;
    void keyPressEvent(QKeyEvent* event) override;
    void contextMenuEvent(QContextMenuEvent* event) override;
    void leaveEvent(QEvent* event) override;
    bool focusNextPrevChild(bool next) override;

private:
    struct Request {
        PlanLayers layers;
        SnapshotPointer snapshot;
        ViewTransform view;
        double ratio = 1;
        std::optional<double> fade;
        std::shared_ptr<const CutFillLayer> cutFill;
    };
    struct Picture {
        QImage image;
        ViewTransform view;
        TextsShown texts;
    };
    void refresh();
    /// Between the whole project in a few pixels and a millimetre that fills the view.
    [[nodiscard]] double withinZoom(double scale);
    [[nodiscard]] std::optional<Ref> under() const;
    static std::optional<Picture> paintPicture(const Request& request, const std::atomic<bool>& cancel);
    void updateSnap(QPointF at);
    void pick(const Snap& snap, Qt::KeyboardModifiers modifiers);
    void startDrag(const Snap& snap);
    void dragTo(QPointF at);
    void paintSelection(QPainter& painter);
    void paintFindings(QPainter& painter);
    void paintHover(QPainter& painter);
    void paintEmpty(QPainter& painter);
    void paintCaption(QPainter& painter);
    void paintStale(QPainter& painter);
    void paintScaleBar(QPainter& painter);
    /// What dragging the taken part to a place does; nothing when it cannot be dragged.
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref& ref, geometry::Vec2 place) const;

    Session& session_;
    PlanLayers layers_;
    ViewTransform view_;
    SnapshotPointer extentOf_;  ///< the results that `extent_` is of
    double extent_ = 0;         ///< the larger side of all that is drawn
    Picture picture_;
    std::optional<double> fade_;
    std::shared_ptr<const CutFillLayer> cutFill_;
    Tool* tool_ = nullptr;
    std::optional<Snap> snap_;
    std::vector<Snap> stacked_;  ///< all that lies under the cursor
    std::size_t stackedAt_ = 0;
    Press press_;
    bool panning_ = false;
    std::optional<Snap> dragging_;
    std::optional<Snap> pickedUp_;  ///< one of the tool's own places, under the pressed button
    std::unique_ptr<LatestWorker<Request, Picture>> painterThread_;
};

}  // namespace erdwerk::app
