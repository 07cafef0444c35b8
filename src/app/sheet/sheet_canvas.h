#pragma once
// A sheet on the screen: the paper with its frames, which are taken, dragged and sized by the mouse.

#include <QImage>
#include <QWidget>
#include <memory>
#include <optional>

#include "app/base/latest_worker.h"
#include "app/base/press.h"
#include "app/base/session.h"
#include "app/base/snapshot.h"
#include "app/sheet/sheet_painter.h"
#include "core/objects/sheet.h"
#include "core/paper/room.h"

namespace erdwerk::app {

class SheetCanvas : public QWidget {
    Q_OBJECT
public:
    explicit SheetCanvas(Session& session, QWidget* parent = nullptr);
    ~SheetCanvas() override;

    void setSheet(ObjectId sheet);
    [[nodiscard]] ObjectId sheet() const { return sheet_; }
    /// All of the paper in view.
    void fit();
    /// Zooms about the middle.
    void zoom(double factor);
    /// The picture is that of the newest results.
    [[nodiscard]] bool settled() const;
    /// Ends dragging and leaves the frame where it was; false when nothing is dragged.
    bool endDrag();
    /// The frame that is selected, when it is one of this sheet.
    [[nodiscard]] std::optional<std::size_t> selectedFrame() const;
    [[nodiscard]] QPointF toScreen(double x, double y) const;
    /// What became of the texts of the last picture.
    [[nodiscard]] const SheetShown& shown() const { return picture_.shown; }

Q_SIGNALS:
    void pictureChanged();
    void menuWanted(QPoint at, std::optional<Ref> under);
    void deletePressed();
    void openFrame(std::size_t frame);  ///< a double click on it

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

private:
    struct Request {
        SnapshotPointer snapshot;
        ObjectId sheet;
        double mm = 1;  ///< picture pixels a millimetre
    };
    struct Picture {
        QImage image;
        double mm = 1;
        SnapshotPointer snapshot;
        ObjectId sheet;
        SheetShown shown;
    };
    struct Drag {
        std::size_t frame = 0;
        paper::Grip grip;
        QPointF from;  ///< on paper, millimetres
        objects::Frame was;
        paper::Guided now;
        bool moved = false;
        bool inside = false;  ///< what the frame shows is moved, not the frame
        QPointF by = {};      ///< so far, millimetres
    };
    using Taken = std::pair<std::size_t, paper::Grip>;  ///< a frame and what it is held by
    static std::optional<Picture> paintPicture(const Request& request, const std::atomic<bool>& cancel);
    void refresh();
    [[nodiscard]] const objects::Sheet* of() const;
    [[nodiscard]] QPointF toPaper(QPointF at) const;
    [[nodiscard]] QRectF onScreen(const paper::Room& room) const;
    /// The uppermost frame there, and what it is held by; the selected one before the others.
    [[nodiscard]] std::optional<Taken> under(QPointF at) const;
    void askForMenu(QPoint at, const std::optional<Taken>& taken);
    void dragTo(QPointF at, bool free);
    void nudge(double dx, double dy);
    void paintFrames(QPainter& painter);
    void paintDrag(QPainter& painter);

    Session& session_;
    ObjectId sheet_;
    double scale_ = 2;  ///< screen pixels a millimetre
    QPointF corner_;    ///< of the paper on the screen
    bool fitted_ = true;
    Picture picture_;
    std::optional<Request> asked_;
    std::optional<Drag> drag_;
    Press press_;
    bool panning_ = false;
    std::optional<std::size_t> hovered_;
    std::unique_ptr<LatestWorker<Request, Picture>> worker_;
};

}  // namespace erdwerk::app
