#include "app/bench/cross_sections.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QLabel>
#include <QSplitter>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "app/plan/tool.h"
#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"

namespace erdwerk::app {

namespace {

enum Columns { Station, Cut, Fill, CutSum, FillSum, ColumnCount };

QLineEdit* figureField(const QString& name, double value) {
    auto* field = new QLineEdit(QString::number(value));
    field->setFixedWidth(54);
    field->setAccessibleName(name);
    return field;
}

}  // namespace

CrossSections::CrossSections(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(4);
    layout->addLayout(buildBar());
    auto* split = new QSplitter;
    section_ = new SectionView;
    section_->setObjectName(QStringLiteral("crossSection"));
    table_ = new QTableWidget(0, ColumnCount);
    table_->setObjectName(QStringLiteral("crossSectionTable"));
    table_->setAccessibleName(tr("Cross-sections"));
    table_->setHorizontalHeaderLabels(
        {tr("Station"), tr("Cut area"), tr("Fill area"), tr("Cut so far"), tr("Fill so far")});
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setSelectionBehavior(QAbstractItemView::SelectRows);
    table_->setAlternatingRowColors(true);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(20);
    new TableClipboard(*table_, session_);
    split->addWidget(section_);
    split->addWidget(table_);
    split->setSizes({480, 420});
    layout->addWidget(split, 1);
    worker_ = std::make_unique<LatestWorker<Request, Answer>>(
        this,
        [](const Request& request, const std::atomic<bool>& cancel) -> std::optional<Answer> {
            auto answer = cut(request);
            return cancel ? std::nullopt : std::optional(std::move(answer));
        },
        [this](Answer answer) { show(std::move(answer)); },
        [this](const QString& reason) {
            if (!reason.isEmpty()) Q_EMIT session_.message(reason, true);
        });
    connect(&session_, &Session::resultsChanged, this, &CrossSections::refresh);
    connect(table_, &QTableWidget::currentCellChanged, this, [this] {
        if (filling_) return;
        draw();
        mark();
    });
}

CrossSections::~CrossSections() {
    worker_.reset();
}

QLayout* CrossSections::buildBar() {
    auto* bar = new QHBoxLayout;
    title_ = new QLabel;
    title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    every_ = figureField(tr("Distance between cross-sections"), 20);
    reach_ = figureField(tr("How far to each side"), 10);
    const auto button = [this](Qt::ArrowType arrow, const QString& name, int by) {
        auto* b = new QToolButton;
        b->setArrowType(arrow);
        b->setAccessibleName(name);
        b->setToolTip(name);
        connect(b, &QToolButton::clicked, this, [this, by] { step(by); });
        return b;
    };
    back_ = button(Qt::LeftArrow, tr("The cross-section before (Page Up)"), -1);
    on_ = button(Qt::RightArrow, tr("The next cross-section (Page Down)"), 1);
    bar->addWidget(back_);
    bar->addWidget(on_);
    bar->addWidget(title_, 1);
    bar->addWidget(new QLabel(tr("every")));
    bar->addWidget(every_);
    bar->addWidget(new QLabel(tr("to each side")));
    bar->addWidget(reach_);
    for (auto* field : {every_, reach_})
        connect(field, &QLineEdit::editingFinished, this, &CrossSections::refresh);
    return bar;
}

void CrossSections::showOf(ObjectId alignment, const std::set<ObjectId>& off) {
    alignment_ = alignment;
    off_ = off;
    refresh();
}

CrossSections::Answer CrossSections::cut(const Request& request) {
    Answer answer;
    const auto& derived = request.snapshot->derived;
    const auto* alignment = derive::Derived::in(derived.alignments, request.alignment);
    if (alignment == nullptr) return answer;
    std::vector<const terrain::TinLocator*> surfaces;
    for (const auto& [id, result] : derived.surfaces) {
        if (!result->locator || request.off.count(id) != 0) continue;
        surfaces.push_back(result->locator.get());
        answer.surfaces.push_back(derived.document.nameOf(id));
    }
    std::vector<route::AcrossLine> lines;
    for (const auto& [id, line] : derived.lines) {
        const auto object = derived.document.find(id);
        if (!object || derived.document.hidden(*object)) continue;
        lines.push_back({line->path, [line = line](double d) { return linework::heightAt(*line, d); }});
        answer.lines.push_back(object->name);
    }
    auto sections = route::crossSections(*alignment, request.every, surfaces, lines, request.options);
    if (!sections) {
        answer.problem = sections.error().text;
        return answer;
    }
    answer.sections = std::move(*sections);
    for (const auto& s : answer.sections)
        answer.stations.push_back(alignment->stationing.stationAt(s.distance));
    return answer;
}

void CrossSections::refresh() {
    if (!isVisible() || !alignment_) return;
    const auto every = typedFigure(every_->text());
    const auto reach = typedFigure(reach_->text());
    const auto valid = [](QLineEdit* field, const std::optional<double>& value) {
        const bool good = value && *value > 0;
        field->setStyleSheet(good ? QString() : QStringLiteral("border: 1px solid #A5313C;"));
        return good;
    };
    const bool good = valid(every_, every) && valid(reach_, reach);
    if (!good) {
        title_->setText(tr("Distances must be figures above 0"));
        worker_->cancel();
        return;
    }
    worker_->request({session_.snapshot(), alignment_, off_, *every, {*reach, *reach}}, true);
}

void CrossSections::show(Answer answer) {
    const int row = table_->currentRow();
    answer_ = std::move(answer);
    const auto& display = session_.document().settings().display;
    const auto sums = route::endAreaSums(answer_.sections);
    const bool areas = answer_.surfaces.size() > 1;
    table_->setRowCount(static_cast<int>(answer_.sections.size()));
    for (std::size_t i = 0; i < answer_.sections.size(); ++i) {
        const auto& s = answer_.sections[i];
        const std::array<QString, ColumnCount> cells{
            QString::fromStdString(formatStation(answer_.stations[i], display)),
            areas ? QString::number(s.cut, 'f', 2) : QString(),
            areas ? QString::number(s.fill, 'f', 2) : QString(),
            areas ? QString::number(sums[i].cut, 'f', 1) : QString(),
            areas ? QString::number(sums[i].fill, 'f', 1) : QString()};
        for (int c = 0; c < ColumnCount; ++c) {
            auto* item = new QTableWidgetItem(cells[static_cast<std::size_t>(c)]);
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(static_cast<int>(i), c, item);
        }
    }
    table_->resizeColumnsToContents();
    filling_ = true;
    if (table_->rowCount() > 0) table_->setCurrentCell(std::clamp(row, 0, table_->rowCount() - 1), 0);
    filling_ = false;
    draw();
}

/// Where somebody stepped to is marked in all views; new results mark nothing.
void CrossSections::mark() {
    const auto at = static_cast<std::size_t>(table_->currentRow());
    if (table_->currentRow() >= 0 && at < answer_.sections.size())
        session_.selection().setHover(
            Hover{answer_.sections[at].place, Ref{alignment_, std::nullopt}, std::nullopt});
}

void CrossSections::step(int by) {
    if (table_->rowCount() == 0) return;
    table_->setCurrentCell(std::clamp(table_->currentRow() + by, 0, table_->rowCount() - 1), 0);
}

void CrossSections::draw() {
    SectionData shown;
    const int row = table_->currentRow();
    const auto at = static_cast<std::size_t>(row);
    back_->setEnabled(row > 0);
    on_->setEnabled(row >= 0 && row + 1 < table_->rowCount());
    if (row < 0 || at >= answer_.sections.size()) {
        title_->setText(QString::fromStdString(answer_.problem));
        return section_->setData(std::move(shown));
    }
    const auto& section = answer_.sections[at];
    static const std::array colours{theme::contourIndex, theme::spruce, theme::alignment, theme::ink};
    for (std::size_t s = 0; s < section.surfaces.size(); ++s) {
        SectionSeries series{
            QString::fromStdString(answer_.surfaces[s]), colours[s % colours.size()], 2, false, {}};
        for (const auto& p : section.surfaces[s]) series.points.push_back({p.offset, p.height});
        shown.series.push_back(std::move(series));
    }
    for (const auto& line : section.lines)
        if (line.height)
            shown.marks.push_back(
                {line.offset, *line.height, QString::fromStdString(answer_.lines[line.line]), true});
    // Fill is where the second lies above the first.
    if (shown.series.size() > 1) std::swap(shown.series[0], shown.series[1]);
    shown.shadeDifference = shown.series.size() > 1;
    const auto& display = session_.document().settings().display;
    shown.station = [display](double offset) {
        return QString::fromStdString(formatLength(offset, display));
    };
    section_->setData(std::move(shown));
    const auto station = QString::fromStdString(formatStation(answer_.stations[at], display));
    title_->setText(answer_.surfaces.size() > 1
                        ? tr("%1 of %2 at %3: cut %4, fill %5")
                              .arg(row + 1)
                              .arg(table_->rowCount())
                              .arg(station)
                              .arg(section.cut, 0, 'f', 2)
                              .arg(section.fill, 0, 'f', 2)
                        : tr("%1 of %2 at %3").arg(row + 1).arg(table_->rowCount()).arg(station));
}

format::Table CrossSections::asTable() const {
    const auto unit = std::string(unitSymbol(session_.document().settings().display.unit));
    format::Table out{"Cross-sections",
                      {"station", "cut [" + unit + "2]", "fill [" + unit + "2]", "cut so far [" + unit + "3]",
                       "fill so far [" + unit + "3]"},
                      {},
                      {}};
    const auto sums = route::endAreaSums(answer_.sections);
    for (std::size_t i = 0; i < answer_.sections.size(); ++i)
        out.rows.push_back({answer_.stations[i], answer_.sections[i].cut, answer_.sections[i].fill,
                            sums[i].cut, sums[i].fill});
    return out;
}

void CrossSections::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refresh();
}

void CrossSections::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_PageUp) return step(-1);
    if (event->key() == Qt::Key_PageDown) return step(1);
    QWidget::keyPressEvent(event);
}

}  // namespace erdwerk::app

#include "moc_cross_sections.cpp"
