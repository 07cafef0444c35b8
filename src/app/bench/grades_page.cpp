#include "app/bench/grades_page.h"

#include <QHeaderView>
#include <QMenu>
#include <QSplitter>
#include <QVBoxLayout>
#include <array>
#include <set>

#include "app/base/remembered.h"
#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "core/base/notation.h"
#include "core/linework/grade_limits.h"
#include "core/linework/to_next.h"
#include "core/objects/line.h"
#include "core/operations/shape.h"
#include "core/terrain/trace.h"

namespace erdwerk::app {

namespace {

enum Columns {
    Kind,
    Station,
    Height,
    Rule,
    Run,
    Rise,
    GradeToNext,
    Ratio,
    Curve,
    KValue,
    Difference,
    Easting,
    Northing,
    ColumnCount
};
/// These are shown when they are asked for.
constexpr int firstMore = Curve;
const QString tableName = QStringLiteral("grades");

/// A place of the finished line in the section.
std::vector<SectionPoint> finishedSection(const linework::ResolvedLine& line) {
    std::vector<SectionPoint> out;
    for (const auto& v : line.vertices)
        out.push_back({v.distance, v.height ? linework::heightAt(line, v.distance) : std::nullopt});
    for (const auto& c : line.curves) {
        constexpr int pieces = 24;
        for (int i = 0; i <= pieces; ++i) {
            const double in = c.length * i / pieces;
            double at = c.start + in;
            if (at < 0) at += line.length;
            if (at > line.length) at -= line.length;
            out.push_back({at, c.height(in)});
        }
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const auto& a, const auto& b) { return a.distance < b.distance; });
    if (line.closed && !out.empty()) out.push_back({line.length, linework::heightAt(line, line.length)});
    return out;
}

}  // namespace

GradesPage::GradesPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    auto* splitter = new QSplitter(Qt::Horizontal);
    section_ = new SectionView;
    table_ = new QTableWidget(0, ColumnCount);
    table_->setObjectName(tableName);
    table_->setAccessibleName(tr("Grades of the selected line"));
    table_->setHorizontalHeaderLabels({tr("Point"), tr("Station"), tr("Height"), tr("Rule"), tr("Run"),
                                       tr("Rise"), tr("Grade"), tr("Ratio"), tr("Curve"), tr("K"),
                                       tr("Over ground"), tr("E"), tr("N")});
    for (const int column : {Run, Rise, GradeToNext, Ratio})
        table_->horizontalHeaderItem(column)->setToolTip(
            tr("To the next: from this control to the next one that has a height of its own"));
    table_->horizontalHeaderItem(Rule)->setToolTip(
        tr("101.25 a height · +0.15 a rise · 2% a grade · 3:1 a ratio · to 2% the grade to the next · "
           "=Ground+0.10 a surface · =Kerb-2% a line, with crossfall · x Ditch where a line is crossed · "
           "meet 2% -3% where two grades meet · any of them, then curve 40 or curve K12 · interpolated · "
           "none"));
    table_->horizontalHeader()->setToolTip(tr("Right click chooses more columns"));
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->verticalHeader()->hide();
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setSelectionBehavior(QAbstractItemView::SelectItems);
    table_->setAlternatingRowColors(true);
    table_->setMouseTracking(true);
    auto* right = new QWidget;
    auto* rows = new QVBoxLayout(right);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(0);
    bar_ = new GradesBar(session);
    rows->addWidget(bar_);
    rows->addWidget(table_, 1);
    splitter->addWidget(section_);
    splitter->addWidget(right);
    splitter->setSizes({290, 550});
    layout->addWidget(splitter);
    showColumns();
    connectParts();
    refresh();
}

void GradesPage::showColumns() {
    const auto more = remembered::moreColumns(tableName);
    for (int c = firstMore; c < ColumnCount; ++c)
        table_->setColumnHidden(c, !more.contains(table_->horizontalHeaderItem(c)->text()));
}

void GradesPage::chooseColumns(QPoint at) {
    auto* menu = new QMenu(this);
    menu->setAttribute(Qt::WA_DeleteOnClose);
    for (int c = firstMore; c < ColumnCount; ++c) {
        auto* action = menu->addAction(table_->horizontalHeaderItem(c)->text());
        action->setCheckable(true);
        action->setChecked(!table_->isColumnHidden(c));
        connect(action, &QAction::toggled, this, [this, name = action->text()](bool on) {
            auto more = remembered::moreColumns(tableName);
            if (on)
                more.insert(name);
            else
                more.remove(name);
            remembered::setMoreColumns(tableName, more);
            showColumns();
        });
    }
    menu->popup(at);
}

void GradesPage::connectParts() {
    connect(&session_, &Session::resultsChanged, this, &GradesPage::refresh);
    connect(&session_.selection(), &Selection::changed, this, &GradesPage::refresh);
    connect(&session_.selection(), &Selection::hoverChanged, this, &GradesPage::showHover);
    auto* clipboard =
        new TableClipboard(*table_, session_, [this](const QModelIndex& cell, const QString& text) {
            return cellEdit(cell.row(), cell.column(), text);
        });
    connect(clipboard, &TableClipboard::menuAsked, this, [this](QMenu* menu) { bar_->addTo(*menu); });
    table_->horizontalHeader()->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(table_->horizontalHeader(), &QWidget::customContextMenuRequested, this,
            [this](QPoint at) { chooseColumns(table_->horizontalHeader()->mapToGlobal(at)); });
    connect(table_, &QTableWidget::cellChanged, this, &GradesPage::edited);
    connect(table_, &QTableWidget::itemSelectionChanged, this, &GradesPage::showSelectedRows);
    connect(table_, &QTableWidget::cellEntered, this, [this](int row, int) {
        const auto* r = resolved();
        if (r == nullptr || static_cast<std::size_t>(row) >= r->vertices.size()) return;
        const auto& v = r->vertices[vertexOf(row)];
        session_.selection().setHover(Hover{v.place, Ref{*line_, vertexOf(row)}, v.height});
    });
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int before, int) {
        if (filling_ || !line_ || row < 0 || row == before) return;
        session_.selection().set({{*line_, vertexOf(row)}});
    });
    connect(section_, &SectionView::hovered, this, [this](std::optional<double> distance) {
        const auto* r = resolved();
        if (r == nullptr || r->path.empty() || !distance) return session_.selection().setHover(std::nullopt);
        session_.selection().setHover(Hover{geometry::positionAt(r->path, *distance).place,
                                            Ref{*line_, std::nullopt}, linework::heightAt(*r, *distance)});
    });
    connect(section_, &SectionView::handleClicked, this, [this](std::size_t i) {
        if (line_ && i < handles_.size()) session_.selection().set({{*line_, handles_[i]}});
    });
    connect(section_, &SectionView::handleDragged, this,
            [this](std::size_t i, double d, double h) { moveHandle(i, d, h, true); });
    connect(section_, &SectionView::handleReleased, this,
            [this](std::size_t i, double d, double h) { moveHandle(i, d, h, false); });
    connect(section_, &SectionView::stretchDragged, this,
            [this](std::size_t i, double rise, bool done) { moveStretch(i, rise, !done); });
    connect(section_, &SectionView::curvePulled, this,
            [this](std::size_t i, double length, bool done) { pullCurve(i, length, !done); });
    section_->setToolTip(
        tr("Drag a point, or the line between two; with Shift pull a vertical curve out of a point"));
}

const linework::ResolvedLine* GradesPage::resolved() const {
    return line_ ? derive::Derived::in(session_.derived().lines, *line_) : nullptr;
}

std::size_t GradesPage::vertexOf(int row) const {
    const auto* r = resolved();
    const auto at = static_cast<std::size_t>(row);
    return r != nullptr && at < r->vertices.size() ? r->ordered(at) : at;
}

std::optional<int> GradesPage::rowOf(std::size_t vertex) const {
    const auto* r = resolved();
    if (r == nullptr || vertex >= r->vertices.size()) return std::nullopt;
    return static_cast<int>(r->positionOf(vertex));
}

void GradesPage::showSelectedRows() {
    if (filling_ || !line_) return;
    std::set<std::size_t> points;
    for (const auto& index : table_->selectionModel()->selectedIndexes())
        points.insert(vertexOf(index.row()));
    bar_->setPoints(*line_, {points.begin(), points.end()});
}

void GradesPage::refresh() {
    line_ = session_.selected<objects::Line>();
    const auto* r = resolved();
    const auto* definition = line_ ? session_.derived().definition(*line_) : nullptr;
    setNothing(line_ ? QString()
                     : tr("Grades: select a 3D line to see and type its heights and grades here."));
    if (r == nullptr || definition == nullptr) {
        section_->setData({});
        handles_.clear();
        filling_ = true;
        table_->setRowCount(0);
        filling_ = false;
        bar_->setPoints({}, {});
        return;
    }
    fillSection(*r, *definition);
    fillTable(*r, *definition);
    showSelectedRows();
}

void GradesPage::fillSection(const linework::ResolvedLine& r, const linework::Line3D& definition) {
    SectionData shown;
    const DisplaySettings display = session_.document().settings().display;
    shown.station = [display](double d) { return QString::fromStdString(formatStation(d, display)); };
    SectionSeries line{QString::fromStdString(session_.document().nameOf(*line_)), theme::clay, 2, false,
                       finishedSection(r)};
    shown.series.push_back(std::move(line));
    shown.stretches = true;
    handles_.clear();
    SectionSeries tangents{QString(), theme::inkQuiet, 1, true, {}};
    for (std::size_t k = 0; k < r.vertices.size(); ++k) {
        const std::size_t i = r.ordered(k);
        const auto& v = r.vertices[i];
        tangents.points.push_back({v.distance, v.height});
        if (!v.height) continue;
        const bool own = standing(definition.vertices[i].rule) == linework::Standing::Own;
        shown.handles.push_back({v.distance, *v.height,
                                 QString::fromStdString(formatHeight(v.height, display)),
                                 definition.vertices[i].isCorner, !definition.vertices[i].isCorner && own});
        handles_.push_back(i);
    }
    for (const auto& c : r.curves)
        if (const auto turn = c.turn()) {
            const double height = c.height(*turn);
            shown.marks.push_back({c.start + *turn, height,
                                   QString::fromStdString(formatHeight(height, display)),
                                   c.in.riseOverRun() > 0});
        }
    const auto* object = session_.derived().document.get<objects::Line>(*line_);
    for (const auto& beyond : linework::gradesBeyond(definition, r, object->limits))
        shown.spans.push_back(
            {beyond.from, beyond.to, QString::fromStdString(formatGrade(beyond.grade, display))});
    if (!r.curves.empty()) shown.series.push_back(std::move(tangents));
    // The ground that is meant first, then the others under the line.
    constexpr std::size_t mostGrounds = 4;
    const std::array<QColor, mostGrounds> colours{theme::contourIndex, theme::breakline, theme::spruce,
                                                  theme::ochre};
    std::vector<ObjectId> grounds{currentSurface(session_)};
    for (const ObjectId id : session_.document().all<objects::Surface>())
        if (id != grounds.front() && !session_.document().hidden(*session_.document().find(id)))
            grounds.push_back(id);
    for (std::size_t g = 0; g < grounds.size() && g < mostGrounds; ++g) {
        const auto* locator = session_.derived().surface(grounds[g]);
        if (locator == nullptr) continue;
        SectionSeries ground{
            QString::fromStdString(session_.document().nameOf(grounds[g])), colours[g], 1.3, false, {}};
        bool any = false;
        for (const auto& p : terrain::tracePath(*locator, r.path, 0.05)) {
            ground.points.push_back({p.distance, p.height});
            any = any || p.height.has_value();
        }
        if (any) shown.series.push_back(std::move(ground));
    }
    section_->setData(std::move(shown));
}

void GradesPage::fillRow(int row, const linework::ResolvedLine& r, const linework::Line3D& line) {
    const DisplaySettings& display = session_.document().settings().display;
    const std::size_t i = r.ordered(static_cast<std::size_t>(row));
    const auto& v = r.vertices[i];
    const auto& definition = line.vertices[i];
    const auto put = [&](int column, const std::string& text, bool editable) {
        auto* item = new QTableWidgetItem(QString::fromStdString(text));
        if (!editable) item->setFlags(item->flags() & ~Qt::ItemIsEditable);
        if (!editable) item->setForeground(theme::inkQuiet);
        if (column > Kind && column != Rule) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
        table_->setItem(row, column, item);
        return item;
    };
    const bool own = standing(definition.rule) == linework::Standing::Own;
    const QString kind = definition.joint      ? tr("smooth joint")
                         : definition.isCorner ? tr("corner %1").arg(i + 1)
                                               : tr("grade point");
    put(Kind, kind.toStdString(), false);
    put(Station, formatStation(v.distance, display), !definition.isCorner && own);
    auto* height = put(Height, formatHeight(v.height, display), true);
    if (!v.height) {
        height->setToolTip(QString::fromStdString(v.problem));
        height->setForeground(theme::madder);
    }
    put(Rule, operations::controlText(session_.document(), definition), true);
    // What lies between two controls is said once, at the first of them.
    const auto way = linework::toNext(line, r, i);
    const bool typed =
        linework::isControl(definition.rule) && (r.closed || row + 1 < static_cast<int>(r.vertices.size()));
    const auto figure = [&](auto text) { return way ? text(*way) : std::string(); };
    using linework::ToNext;
    const bool moves = way && !line.vertices[way->next].isCorner &&
                       standing(line.vertices[way->next].rule) == linework::Standing::Own;
    put(Run, figure([&](const ToNext& w) { return formatFixed(w.run, display.lengthDecimals); }), moves);
    put(Rise, figure([&](const ToNext& w) { return formatRise(w.rise, display); }), typed);
    put(GradeToNext, figure([&](const ToNext& w) { return formatGrade(w.grade(), display); }), typed);
    put(Ratio, figure([](const ToNext& w) { return formatRatio(w.grade()); }), typed);
    const auto curve =
        std::find_if(r.curves.begin(), r.curves.end(), [&](const auto& c) { return c.vertex == i; });
    const bool curves = curve != r.curves.end();
    auto* length =
        put(Curve, curves ? formatFixed(curve->length, display.lengthDecimals) : std::string(), true);
    if (!v.curveProblem.empty()) {
        length->setText(tr("left out"));
        length->setToolTip(QString::fromStdString(v.curveProblem));
        length->setForeground(theme::madder);
    }
    put(KValue, curves ? formatFixed(curve->k(), 2) : std::string(), true);
    const auto* ground = session_.derived().surface(currentSurface(session_));
    const auto under = ground != nullptr ? ground->heightAt(v.place) : std::nullopt;
    const auto finished = linework::heightAt(r, v.distance);
    put(Difference, under && finished ? formatRise(*finished - *under, display) : std::string(), false);
    put(Easting, formatFixed(v.place.x, display.lengthDecimals), definition.isCorner && !definition.joint);
    put(Northing, formatFixed(v.place.y, display.lengthDecimals), definition.isCorner && !definition.joint);
}

void GradesPage::fillTable(const linework::ResolvedLine& r, const linework::Line3D& line) {
    filling_ = true;
    table_->setRowCount(static_cast<int>(r.vertices.size()));
    for (int row = 0; row < table_->rowCount(); ++row) fillRow(row, r, line);
    for (const Ref& ref : session_.selection()) {
        if (ref.object != *line_ || !ref.part) continue;
        const auto row = rowOf(*ref.part);
        if (!row) continue;
        if (table_->currentRow() != *row) table_->setCurrentCell(*row, Height);
        const auto handle = std::find(handles_.begin(), handles_.end(), *ref.part);
        if (handle != handles_.end())
            section_->setActive(static_cast<std::size_t>(handle - handles_.begin()));
    }
    filling_ = false;
}

std::optional<document::Edit> GradesPage::cellEdit(int row, int column, const QString& text) const {
    if (!line_ || row < 0 || (table_->item(row, column)->flags() & Qt::ItemIsEditable) == 0)
        return std::nullopt;
    const std::size_t vertex = vertexOf(row);
    const std::string typed = text.toStdString();
    const auto refused = [](const Error& error) -> document::Edit {
        return
            [error](const document::Document&) -> Result<document::Edited> { return tl::unexpected(error); };
    };
    using operations::ToNextFigure;
    switch (column) {
        case Station: {
            const auto station = parseStation(typed, session_.document().settings().display);
            if (station) return operations::moveGradePointTo(*line_, vertex, *station);
            return refused(station.error());
        }
        case Height:
            return operations::setTypedHeight(*line_, vertex, typed);
        case Run:
            return operations::setTypedRun(session_.results(), *line_, vertex, typed);
        case Rise:
            return operations::setTypedToNext(*line_, vertex, ToNextFigure::Rise, typed);
        case GradeToNext:
            return operations::setTypedToNext(*line_, vertex, ToNextFigure::Grade, typed);
        case Ratio:
            return operations::setTypedToNext(*line_, vertex, ToNextFigure::Ratio, typed);
        case Curve:
            return operations::setTypedCurve(*line_, vertex, typed);
        case KValue:
            return operations::setTypedCurve(*line_, vertex, typed.empty() ? typed : "K" + typed);
        case Easting:
        case Northing: {
            const auto value = typedFigure(text);
            if (!value) return refused({ErrorCode::BadInput, "'" + typed + "' is no coordinate", {}, 0});
            auto place = resolved()->vertices[vertex].place;
            (column == Easting ? place.x : place.y) = *value;
            return operations::moveVertex(*line_, vertex, place);
        }
        default:
            return operations::setTypedRule(*line_, vertex, typed);
    }
}

void GradesPage::edited(int row, int column) {
    if (filling_) return;
    const QString text = table_->item(row, column)->text().trimmed();
    const auto edit = cellEdit(row, column, text);
    const QString name = line_ ? QString::fromStdString(session_.document().nameOf(*line_)) : QString();
    const QString heading = table_->horizontalHeaderItem(column)->text().toLower();
    const QString what = tr("%1, point %2: %3 %4").arg(name).arg(vertexOf(row) + 1).arg(heading, text);
    // The cell shows again what holds; done later, since the table is still in its own edit.
    if (!edit || !session_.edit(what, *edit))
        QMetaObject::invokeMethod(this, &GradesPage::refresh, Qt::QueuedConnection);
}

void GradesPage::showHover() {
    const auto* r = resolved();
    const auto& hover = session_.selection().hover();
    if (r == nullptr || !hover || r->path.empty()) return section_->setMarked(std::nullopt);
    const auto near = geometry::nearestOn(r->path, hover->place);
    const bool onLine = hover->ref && hover->ref->object == *line_;
    if (!near || (!onLine && std::abs(near->distance) > r->length * 0.02))
        return section_->setMarked(std::nullopt);
    section_->setMarked(geometry::distanceAlong(r->path, *near));
}

}  // namespace erdwerk::app

#include "moc_grades_page.cpp"
