#include "app/bench/grades_page.h"

#include <QHeaderView>
#include <QSplitter>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "app/bench/table_hands.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "core/base/notation.h"
#include "core/linework/to_next.h"
#include "core/operations/lines.h"
#include "core/terrain/trace.h"

namespace erdwerk::app {

namespace {
enum Columns { Kind, Station, Height, Rule, Run, Rise, GradeToNext, Ratio, ColumnCount };
}

GradesPage::GradesPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* splitter = new QSplitter(Qt::Horizontal);
    section_ = new SectionView;
    table_ = new QTableWidget(0, ColumnCount);
    table_->setObjectName(QStringLiteral("grades"));
    table_->setAccessibleName(tr("Grades of the selected line"));
    table_->setHorizontalHeaderLabels({tr("Point"), tr("Station"), tr("Height"), tr("Rule"), tr("Run"),
                                       tr("Rise"), tr("Grade"), tr("Ratio")});
    for (const int column : {Run, Rise, GradeToNext, Ratio})
        table_->horizontalHeaderItem(column)->setToolTip(
            tr("To the next: from this control to the next one that has a height of its own"));
    table_->horizontalHeaderItem(Rule)->setToolTip(
        tr("101.25 a height · +0.15 a rise · 2% a grade · 3:1 a ratio · =Ground+0.10 a surface · "
           "interpolated · none"));
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setSelectionBehavior(QAbstractItemView::SelectItems);
    table_->setAlternatingRowColors(true);
    table_->setMouseTracking(true);
    splitter->addWidget(section_);
    splitter->addWidget(table_);
    splitter->setSizes({290, 550});
    layout->addWidget(splitter);

    connectParts();
    refresh();
}

void GradesPage::connectParts() {
    connect(&session_, &Session::resultsChanged, this, &GradesPage::refresh);
    connect(&session_, &Session::selectionChanged, this, &GradesPage::refresh);
    connect(&session_, &Session::hoverChanged, this, &GradesPage::showHover);
    new TableHands(*table_, session_, [this](const QModelIndex& cell, const QString& text) {
        return cellEdit(cell.row(), cell.column(), text);
    });
    connect(table_, &QTableWidget::cellChanged, this, &GradesPage::edited);
    connect(table_, &QTableWidget::cellEntered, this, [this](int row, int) {
        const auto* r = resolved();
        if (r == nullptr || static_cast<std::size_t>(row) >= r->vertices.size()) return;
        const auto& v = r->vertices[static_cast<std::size_t>(row)];
        session_.setHover(Hover{v.place, Ref{*line_, static_cast<std::size_t>(row)}, v.height});
    });
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
        if (filling_ || !line_ || row < 0 || row == before) return;
        session_.select({{*line_, static_cast<std::size_t>(row)}});
    });
    connect(section_, &SectionView::hovered, this, [this](std::optional<double> distance) {
        const auto* r = resolved();
        if (r == nullptr || r->path.empty() || !distance) return session_.setHover(std::nullopt);
        session_.setHover(Hover{geometry::positionAt(r->path, *distance).place, Ref{*line_, std::nullopt},
                                linework::heightAt(*r, *distance)});
    });
    connect(section_, &SectionView::handleClicked, this, [this](std::size_t i) {
        if (line_) session_.select({{*line_, i}});
    });
    const auto rounded = [](double h) { return std::round(h * 1000) / 1000; };
    connect(section_, &SectionView::handleDragged, this, [this, rounded](std::size_t i, double, double h) {
        setRule(i, linework::FixedHeight{rounded(h)}, true);
    });
    connect(section_, &SectionView::handleReleased, this, [this, rounded](std::size_t i, double, double h) {
        setRule(i, linework::FixedHeight{rounded(h)}, false);
    });
}

const linework::ResolvedLine* GradesPage::resolved() const {
    return line_ ? derive::Derived::in(session_.derived().lines, *line_) : nullptr;
}

void GradesPage::refresh() {
    line_ = session_.selected<objects::Line>();
    const auto* r = resolved();
    const auto* payload = line_ ? session_.derived().document.get<objects::Line>(*line_) : nullptr;
    setNothing(line_ ? QString()
                     : tr("Grades: select a 3D line to see and type its heights and grades here."));
    SectionData shown;
    if (r == nullptr || payload == nullptr) {
        section_->setData(std::move(shown));
        filling_ = true;
        table_->setRowCount(0);
        filling_ = false;
        return;
    }
    const DisplaySettings display = session_.document().settings().display;
    shown.station = [display](double d) { return QString::fromStdString(formatStation(d, display)); };
    SectionSeries line{QString::fromStdString(session_.document().nameOf(*line_)), theme::clay, 2, false, {}};
    for (std::size_t i = 0; i < r->vertices.size(); ++i) {
        const auto& v = r->vertices[i];
        line.points.push_back({v.distance, v.height});
        if (v.height)
            shown.handles.push_back({v.distance, *v.height,
                                     QString::fromStdString(formatHeight(v.height, display)),
                                     payload->line.vertices[i].isCorner, false});
    }
    // Handles stand for vertices one to one only while every vertex has a height.
    if (!r->complete()) shown.handles.clear();
    if (r->closed) line.points.push_back({r->length, r->vertices.front().height});
    shown.series.push_back(std::move(line));
    const ObjectId surface = currentSurface(session_);
    if (const auto* locator = session_.derived().surface(surface)) {
        SectionSeries ground{
            QString::fromStdString(session_.document().nameOf(surface)), theme::contourIndex, 1.3, false, {}};
        for (const auto& p : terrain::traceChain(*locator, geometry::flattened(r->path, 0.05)))
            ground.points.push_back({p.distance, p.height});
        shown.series.push_back(std::move(ground));
    }
    section_->setData(std::move(shown));
    fillTable(*r, payload->line);
}

void GradesPage::fillTable(const linework::ResolvedLine& r, const linework::Line3D& line) {
    filling_ = true;
    const DisplaySettings& display = session_.document().settings().display;
    table_->setRowCount(static_cast<int>(r.vertices.size()));
    for (std::size_t i = 0; i < r.vertices.size(); ++i) {
        const auto& v = r.vertices[i];
        const int row = static_cast<int>(i);
        const auto put = [&](int column, const QString& text, bool editable) {
            auto* item = new QTableWidgetItem(text);
            if (!editable) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
            if (!editable) item->setForeground(theme::inkQuiet);
            if (column > Kind && column != Rule) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(row, column, item);
            return item;
        };
        put(Kind, line.vertices[i].isCorner ? tr("corner %1").arg(i + 1) : tr("grade point"), false);
        put(Station, QString::fromStdString(formatStation(v.distance, display)), !line.vertices[i].isCorner);
        auto* height = put(Height, QString::fromStdString(formatHeight(v.height, display)), true);
        if (!v.height) {
            height->setToolTip(QString::fromStdString(v.problem));
            height->setForeground(theme::madder);
        }
        put(Rule, QString::fromStdString(operations::ruleText(session_.document(), line.vertices[i].rule)),
            true);
        // What lies between two controls is said once, at the first of them.
        const auto way = linework::toNext(line, r, i);
        const bool typed =
            linework::isControl(line.vertices[i].rule) && (r.closed || i + 1 < r.vertices.size());
        const auto figure = [&](auto text) { return way ? QString::fromStdString(text(*way)) : QString(); };
        using linework::ToNext;
        put(Run, figure([&](const ToNext& w) { return formatFixed(w.run, display.lengthDecimals); }), false);
        put(Rise, figure([&](const ToNext& w) { return formatRise(w.rise, display); }), typed);
        put(GradeToNext, figure([&](const ToNext& w) { return formatGrade(w.grade(), display); }), typed);
        put(Ratio, figure([](const ToNext& w) { return formatRatio(w.grade()); }), typed);
    }
    for (const Ref& ref : session_.selection()) {
        if (ref.object != *line_ || !ref.part || *ref.part >= r.vertices.size()) continue;
        if (table_->currentRow() != static_cast<int>(*ref.part))
            table_->setCurrentCell(static_cast<int>(*ref.part), Height);
        section_->setActive(*ref.part);
    }
    filling_ = false;
}

void GradesPage::setRule(std::size_t vertex, const linework::HeightRule& rule, bool preview) {
    if (!line_) return;
    const auto edit = operations::setRule(*line_, vertex, rule);
    if (preview)
        session_.preview(edit);
    else
        session_.edit(tr("%1, point %2: height %3")
                          .arg(QString::fromStdString(session_.document().nameOf(*line_)))
                          .arg(vertex + 1)
                          .arg(QString::fromStdString(operations::ruleText(session_.document(), rule))),
                      edit);
}

std::optional<document::Edit> GradesPage::cellEdit(int row, int column, const QString& text) const {
    if (!line_ || row < 0 || (table_->item(row, column)->flags() & Qt::ItemIsEditable) == 0)
        return std::nullopt;
    const auto vertex = static_cast<std::size_t>(row);
    const std::string typed = text.toStdString();
    if (column == Station) {
        const auto station = parseStation(typed, session_.document().settings().display);
        if (station) return operations::moveGradePointTo(*line_, vertex, *station);
        return [error = station.error()](const document::Document&) -> Result<document::Edited> {
            return tl::unexpected(error);
        };
    }
    using operations::ToNextFigure;
    if (column == Rise) return operations::setTypedToNext(*line_, vertex, ToNextFigure::Rise, typed);
    if (column == GradeToNext) return operations::setTypedToNext(*line_, vertex, ToNextFigure::Grade, typed);
    if (column == Ratio) return operations::setTypedToNext(*line_, vertex, ToNextFigure::Ratio, typed);
    return operations::setTypedRule(*line_, vertex, typed);
}

void GradesPage::edited(int row, int column) {
    if (filling_) return;
    const QString text = table_->item(row, column)->text().trimmed();
    const auto edit = cellEdit(row, column, text);
    const QString name = line_ ? QString::fromStdString(session_.document().nameOf(*line_)) : QString();
    const QString heading = table_->horizontalHeaderItem(column)->text().toLower();
    // The cell shows again what holds; done later, since the table is still in its own edit.
    if (!edit || !session_.edit(tr("%1, point %2: %3 %4").arg(name).arg(row + 1).arg(heading, text), *edit))
        QMetaObject::invokeMethod(this, &GradesPage::refresh, Qt::QueuedConnection);
}

void GradesPage::showHover() {
    const auto* r = resolved();
    const auto& hover = session_.hover();
    if (r == nullptr || !hover || r->path.empty()) return section_->setMarked(std::nullopt);
    const auto near = geometry::nearestOn(r->path, hover->place);
    const bool onLine = hover->ref && hover->ref->object == *line_;
    if (!near || (!onLine && std::abs(near->distance) > r->length * 0.02))
        return section_->setMarked(std::nullopt);
    section_->setMarked(geometry::distanceAlong(r->path, *near));
}

}  // namespace erdwerk::app
