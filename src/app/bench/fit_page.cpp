#include "app/bench/fit_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <QPoint>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "app/kinds/surface_paint.h"
#include "core/derive/surface_result.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app {

namespace {

/// Per cent, rounded down: only all of them are 100.
QString shareText(double share) {
    return QStringLiteral("%1 %").arg(std::floor(share * 10000) / 100, 0, 'f', 2);
}

}  // namespace

// ---- histogram

void FitHistogram::setFigures(std::optional<terrain::FitFigures> figures, double tolerance) {
    figures_ = std::move(figures);
    tolerance_ = tolerance;
    update();
}

void FitHistogram::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::panel);
    if (!figures_ || figures_->histogram.empty() || figures_->range <= 0) return;
    const auto& bars = figures_->histogram;
    const QRectF area = QRectF(rect()).adjusted(10, 12, -10, -24);
    const double most =
        static_cast<double>(std::max<std::size_t>(1, *std::max_element(bars.begin(), bars.end())));
    const double width = area.width() / static_cast<double>(bars.size());
    painter.setPen(Qt::NoPen);
    for (std::size_t i = 0; i < bars.size(); ++i) {
        const double middle = -figures_->range + (static_cast<double>(i) + 0.5) * 2 * figures_->range /
                                                     static_cast<double>(bars.size());
        // A logarithm, or the few that are far off would not be seen.
        const double share = bars[i] == 0 ? 0 : std::log1p(static_cast<double>(bars[i])) / std::log1p(most);
        painter.setBrush(deviationColour(middle, tolerance_));
        painter.drawRect(QRectF(area.left() + static_cast<double>(i) * width,
                                area.bottom() - share * area.height(), std::max(1.0, width - 1),
                                share * area.height()));
    }
    painter.setFont(theme::font(11));
    const auto x = [&](double d) {
        return area.left() + (d + figures_->range) / (2 * figures_->range) * area.width();
    };
    for (const double mark : {-tolerance_, 0.0, tolerance_}) {
        painter.setPen(
            QPen(mark == 0 ? theme::inkQuiet : theme::clay, 1, mark == 0 ? Qt::SolidLine : Qt::DashLine));
        painter.drawLine(QPointF(x(mark), area.top() - 4), QPointF(x(mark), area.bottom() + 3));
        painter.setPen(theme::ink);
        painter.drawText(QRectF(x(mark) - 40, area.bottom() + 4, 80, 18), Qt::AlignCenter,
                         mark == 0 ? QStringLiteral("0")
                                   : (mark > 0 ? QStringLiteral("+") : QStringLiteral("−")) +
                                         QString::fromStdString(formatFixed(std::abs(mark), 3)));
    }
}

// ---- page

FitPage::FitPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(10, 4, 0, 0);
    layout->setSpacing(4);
    layout->addLayout(buildBar());
    layout->addLayout(buildFigures(), 1);
    connect(&session_, &Session::resultsChanged, this, &FitPage::refresh);
    connect(&session_.selection(), &Selection::changed, this, &FitPage::refresh);
    connect(&session_, &Session::opened, this, [this] {
        now_.clear();
        before_.clear();
    });
    refresh();
}

QLayout* FitPage::buildBar() {
    auto* bar = new QHBoxLayout;
    title_ = new QLabel;
    title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    map_ = new QCheckBox(tr("Map in the plan"));
    map_->setToolTip(tr("Colours the plan by how far the source lies above or below the surface"));
    auto* goTo = new QPushButton(tr("Go there"));
    auto* add = new QPushButton(tr("Add its point"));
    auto* trace = new QPushButton(tr("Trace crease"));
    add->setObjectName(QStringLiteral("addSourcePoint"));
    for (auto* button : {goTo, add, trace}) button->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    bar->addWidget(title_, 1);
    bar->addWidget(map_);
    bar->addSpacing(16);
    bar->addWidget(goTo);
    bar->addWidget(add);
    bar->addWidget(trace);
    bar->addSpacing(8);
    connect(goTo, &QPushButton::clicked, this, &FitPage::go);
    connect(add, &QPushButton::clicked, this, &FitPage::addPoint);
    connect(trace, &QPushButton::clicked, this, [this] {
        go();
        if (surface_) Q_EMIT tracePressed(surface_);
    });
    connect(map_, &QCheckBox::clicked, this, [this](bool on) {
        if (surface_)
            session_.edit(tr("Map of the fit check"),
                          [on, id = surface_](const document::Document& d) -> Result<document::Edited> {
                              return document::changed<objects::Surface>(
                                  d, id, [on](auto& s) { s.style.deviation = on; });
                          });
    });
    return bar;
}

QLayout* FitPage::buildFigures() {
    auto* row = new QHBoxLayout;
    row->setSpacing(10);
    figures_ = new QTableWidget(0, 3);
    figures_->setObjectName(QStringLiteral("fitFigures"));
    figures_->setAccessibleName(tr("Figures of the fit"));
    figures_->setHorizontalHeaderLabels({tr("Figure"), tr("This run"), tr("Run before")});
    figures_->verticalHeader()->hide();
    figures_->verticalHeader()->setDefaultSectionSize(20);
    figures_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    figures_->horizontalHeader()->setStretchLastSection(true);
    figures_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    figures_->setMinimumWidth(230);
    histogram_ = new FitHistogram;
    histogram_->setMinimumWidth(120);
    histogram_->setAccessibleName(tr("How the deviations are spread"));
    worst_ = new QTreeWidget;
    worst_->setObjectName(QStringLiteral("fitWorst"));
    worst_->setAccessibleName(tr("Worst places"));
    worst_->setRootIsDecorated(false);
    worst_->setHeaderLabels({tr("Worst places"), tr("Source lies")});
    worst_->setMinimumWidth(230);
    worst_->setColumnWidth(0, 170);
    worst_->installEventFilter(this);
    row->addWidget(figures_, 2);
    row->addWidget(histogram_, 1);
    row->addWidget(worst_, 2);
    connect(worst_, &QTreeWidget::itemClicked, this, &FitPage::go);
    return row;
}

void FitPage::refresh() {
    const auto& derived = session_.derived();
    for (const auto& [id, fit] : derived.fits) {
        const auto* surface = derive::Derived::in(derived.surfaces, id);
        const auto it = now_.find(id);
        if (it != now_.end() && it->second.of == fit) continue;
        if (it != now_.end()) before_[id] = it->second;
        now_[id] = {fit, fit->figures, fit->tolerance, surface == nullptr ? 0 : surface->figures.triangles};
    }
    // The selected surface; else the last that has a fit to show.
    const auto selected = session_.selected<objects::Surface>();
    surface_ = selected && derived.fits.count(*selected) != 0 ? *selected
               : derived.fits.count(surface_) != 0            ? surface_
               : derived.fits.empty()                         ? ObjectId{}
                                                              : derived.fits.rbegin()->first;
    map_->setEnabled(static_cast<bool>(surface_));
    setNothing(
        surface_
            ? QString()
            : tr("Fit: a surface against its cloud or raster; choose one under Fit check in its facts."));
    if (!surface_) {
        shown_.reset();
        figures_->setRowCount(0);
        histogram_->setFigures(std::nullopt, 0);
        worst_->clear();
        return;
    }
    const auto fit = derived.fits.at(surface_);
    map_->setChecked(derived.document.get<objects::Surface>(surface_)->style.deviation);
    if (fit == shown_) return;
    shown_ = fit;
    const auto& display = derived.document.settings().display;
    title_->setText(tr("%1 against its source, tolerance %2: %3 of the points lie within it")
                        .arg(QString::fromStdString(derived.document.nameOf(surface_)),
                             QString::fromStdString(formatLength(fit->tolerance, display)),
                             shareText(fit->figures.withinShare())));
    const auto before = before_.find(surface_);
    fillFigures(now_.at(surface_), before == before_.end() ? std::nullopt : std::optional(before->second));
    histogram_->setFigures(fit->figures, fit->tolerance);
    fillWorst(*fit);
}

void FitPage::fillFigures(const Run& now, const std::optional<Run>& before) {
    const auto length = [](double v) { return QString::fromStdString(formatFixed(v, 4)); };
    struct Row {
        QString name;
        std::function<QString(const Run&)> text;
        std::function<double(const Run&)> size;  ///< smaller is better; empty: neither
    };
    const std::vector<Row> rows{
        {tr("Points compared"), [](const Run& r) { return QString::number(r.figures.points); }, {}},
        {tr("Off the surface"), [](const Run& r) { return QString::number(r.figures.outside); }, {}},
        {tr("RMS"), [&](const Run& r) { return length(r.figures.rms); },
         [](const Run& r) { return r.figures.rms; }},
        {tr("Mean"), [&](const Run& r) { return length(r.figures.mean); },
         [](const Run& r) { return std::abs(r.figures.mean); }},
        {tr("Largest above"), [&](const Run& r) { return length(r.figures.largestUp); },
         [](const Run& r) { return r.figures.largestUp; }},
        {tr("Largest below"), [&](const Run& r) { return length(r.figures.largestDown); },
         [](const Run& r) { return -r.figures.largestDown; }},
        {tr("95 % are within"), [&](const Run& r) { return length(r.figures.p95); },
         [](const Run& r) { return r.figures.p95; }},
        {tr("Within tolerance"), [](const Run& r) { return shareText(r.figures.withinShare()); },
         [](const Run& r) { return -r.figures.withinShare(); }},
        {tr("Triangles"), [](const Run& r) { return QString::number(r.triangles); }, {}}};
    figures_->setRowCount(static_cast<int>(rows.size()));
    for (std::size_t i = 0; i < rows.size(); ++i) {
        const int r = static_cast<int>(i);
        auto text = rows[i].text(now);
        if (before && rows[i].size) {
            const double change = rows[i].size(now) - rows[i].size(*before);
            if (std::abs(change) > 1e-9) text += change < 0 ? tr("  better") : tr("  worse");
        }
        figures_->setItem(r, 0, new QTableWidgetItem(rows[i].name));
        figures_->setItem(r, 1, new QTableWidgetItem(text));
        figures_->setItem(r, 2, new QTableWidgetItem(before ? rows[i].text(*before) : QStringLiteral("–")));
    }
}

void FitPage::fillWorst(const derive::FitResult& fit) {
    const int row = worst_->currentItem() != nullptr ? worst_->indexOfTopLevelItem(worst_->currentItem()) : 0;
    worst_->clear();
    const auto& display = session_.document().settings().display;
    for (const auto& w : fit.worst) {
        auto* item = new QTreeWidgetItem(worst_);
        item->setText(0, QString::fromStdString(formatPosition(w.point.x, w.point.y, display)));
        item->setText(1, (w.deviation > 0 ? tr("%1 above") : tr("%1 below"))
                             .arg(QString::fromStdString(formatLength(std::abs(w.deviation), display))));
    }
    if (fit.worst.empty()) {
        auto* item = new QTreeWidgetItem(worst_, {tr("None: all points are within")});
        item->setDisabled(true);
        return;
    }
    worst_->setCurrentItem(worst_->topLevelItem(std::min(row, worst_->topLevelItemCount() - 1)));
}

void FitPage::go() {
    const int row =
        worst_->currentItem() != nullptr ? worst_->indexOfTopLevelItem(worst_->currentItem()) : -1;
    if (!shown_ || row < 0 || static_cast<std::size_t>(row) >= shown_->worst.size()) return;
    const auto& w = shown_->worst[static_cast<std::size_t>(row)];
    Q_EMIT session_.selection().goToPlace(w.point.plan());
    session_.selection().setHover(Hover{w.point.plan(), std::nullopt, w.point.z});
}

void FitPage::addPoint() {
    const int row =
        worst_->currentItem() != nullptr ? worst_->indexOfTopLevelItem(worst_->currentItem()) : -1;
    if (!shown_ || row < 0 || static_cast<std::size_t>(row) >= shown_->worst.size()) return;
    session_.edit(tr("Add the source's point"),
                  [id = surface_, point = shown_->worst[static_cast<std::size_t>(row)].point](
                      const document::Document& d) -> Result<document::Edited> {
                      return operations::addToSurface(id, "Points from the source", {point}, "fit")(d);
                  });
}

bool FitPage::eventFilter(QObject* watched, QEvent* event) {
    if (watched == worst_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            go();
            return true;
        }
        if (key == Qt::Key_1) {
            addPoint();
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app

#include "moc_fit_page.cpp"
