#pragma once
// Fit: how well the surface fits its dense source, this run beside the one before, and where it fits worst.

#include <QCheckBox>
#include <QLabel>
#include <QTableWidget>
#include <QTreeWidget>

#include "app/base/session.h"
#include "app/bench/bench_page.h"
#include "core/base/id.h"
#include "core/terrain/fit.h"

namespace erdwerk::app {

/// Bars of the deviations, with the tolerance marked.
class FitHistogram : public QWidget {
    Q_OBJECT
public:
    using QWidget::QWidget;
    void setFigures(std::optional<terrain::FitFigures> figures, double tolerance);

protected:
    void paintEvent(QPaintEvent* event) override;

private:
    std::optional<terrain::FitFigures> figures_;
    double tolerance_ = 0;
};

class FitPage : public BenchPage {
    Q_OBJECT
public:
    explicit FitPage(Session& session, QWidget* parent = nullptr);
    [[nodiscard]] QTableWidget* figures() { return figures_; }
    [[nodiscard]] QTreeWidget* worst() { return worst_; }

Q_SIGNALS:
    /// The crease tool is wanted, at the place that is shown, for what this surface is compared with.
    void tracePressed(ObjectId surface);

private:
    struct Run {
        std::shared_ptr<const derive::FitResult> of;
        terrain::FitFigures figures;
        double tolerance = 0;
        std::size_t triangles = 0;
    };
    QLayout* buildBar();
    QLayout* buildFigures();
    void refresh();
    void fillFigures(const Run& now, const std::optional<Run>& before);
    void fillWorst(const derive::FitResult& fit);
    void go();
    void addPoint();
    bool eventFilter(QObject* watched, QEvent* event) override;

    Session& session_;
    QLabel* title_;
    QTableWidget* figures_;
    FitHistogram* histogram_;
    QTreeWidget* worst_;
    QCheckBox* map_;
    ObjectId surface_;
    std::shared_ptr<const derive::FitResult> shown_;
    std::map<ObjectId, Run> now_;
    std::map<ObjectId, Run> before_;
};

}  // namespace erdwerk::app
