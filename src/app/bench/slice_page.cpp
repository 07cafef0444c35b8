#include "app/bench/slice_page.h"

#include <QAction>
#include <QApplication>
#include <QClipboard>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QSplitter>
#include <QStackedWidget>
#include <QVBoxLayout>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "app/plan/tool.h"
#include "core/derive/surface_result.h"
#include "core/document/document.h"
#include "core/format/table_file.h"
#include "core/linework/line3d.h"
#include "core/objects/points.h"
#include "core/objects/section.h"
#include "core/survey/cloud_tiles.h"

namespace erdwerk::app {

using geometry::Vec2;
using terrain::SectionField;

namespace {

constexpr std::array allFields{SectionField::Station, SectionField::Easting, SectionField::Northing,
                               SectionField::Height,  SectionField::Grade,   SectionField::Difference};

QColor seriesColour(std::size_t i) {
    static const std::vector<QColor> colours{QColor(0x8E, 0x6E, 0x45), QColor(0x2C, 0x6E, 0x68),
                                             QColor(0xB9, 0x50, 0x2B), QColor(0x6A, 0x3B, 0x6F),
                                             QColor(0x30, 0x3A, 0x7C)};
    return colours[i % colours.size()];
}

QToolButton* menuButton(const QString& text) {
    auto* button = new QToolButton;
    button->setText(text);
    button->setPopupMode(QToolButton::InstantPopup);
    button->setMenu(new QMenu(button));
    button->setStyleSheet(QStringLiteral("padding: 2px 14px 2px 8px;"));
    return button;
}

}  // namespace

SlicePage::SlicePage(Session& session, QWidget* parent)
    : BenchPage(parent),
      session_(session),
      chosen_{SectionField::Station, SectionField::Height, SectionField::Difference} {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(10, 4, 0, 0);
    layout->setSpacing(4);
    layout->addLayout(buildBar());
    views_ = new QStackedWidget;
    views_->addWidget(buildViews());
    across_ = new CrossSections(session_);
    views_->addWidget(across_);
    layout->addWidget(views_, 1);
    buildFields();
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
    connect(&session_, &Session::resultsChanged, this, &SlicePage::refresh);
    connect(&session_.selection(), &Selection::changed, this, &SlicePage::follow);
    follow();
}

QLayout* SlicePage::buildBar() {
    auto* bar = new QHBoxLayout;
    title_ = new QLabel;
    title_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    shows_ = menuButton(tr("Through"));
    fields_ = menuButton(tr("Fields"));
    interval_ = new QLineEdit;
    interval_->setFixedWidth(70);
    interval_->setPlaceholderText(tr("edges"));
    interval_->setAccessibleName(tr("Interval"));
    interval_->setToolTip(tr("A row every so far; empty: wherever a triangle's edge is crossed"));
    auto* more = menuButton(tr("More"));
    more->setToolTip(tr("Keep the section, copy its table, export it"));
    acrossButton_ = new QPushButton(tr("Across"));
    acrossButton_->setCheckable(true);
    acrossButton_->setToolTip(tr("Cross-sections of the alignment, one after the other"));
    acrossButton_->setStyleSheet(
        QStringLiteral("QPushButton { padding: 1px 8px; } QPushButton:checked { border: 1px solid #B9502B; "
                       "color: #B9502B; }"));
    keep_ = more->menu()->addAction(tr("Keep in the project"));
    connect(acrossButton_, &QPushButton::toggled, this, &SlicePage::refresh);
    connect(keep_, &QAction::triggered, this, &SlicePage::keep);
    connect(more->menu()->addAction(tr("Copy the table")), &QAction::triggered, this, &SlicePage::copy);
    connect(more->menu()->addAction(tr("Export…")), &QAction::triggered, this, &SlicePage::exportPressed);
    bar->addWidget(title_, 1);
    bar->addWidget(acrossButton_);
    bar->addWidget(shows_);
    bar->addWidget(fields_);
    everyLabel_ = new QLabel(tr("every"));
    bar->addWidget(everyLabel_);
    bar->addWidget(interval_);
    bar->addWidget(more);
    bar->addSpacing(8);
    connect(interval_, &QLineEdit::editingFinished, this, [this] {
        changeKept();
        refresh();
    });
    connect(shows_->menu(), &QMenu::aboutToShow, this, &SlicePage::offerShown);
    return bar;
}

QWidget* SlicePage::buildViews() {
    auto* split = new QSplitter;
    section_ = new SectionView;
    section_->setObjectName(QStringLiteral("slice"));
    table_ = new QTableWidget;
    table_->setObjectName(QStringLiteral("sliceTable"));
    new TableClipboard(*table_, session_);
    table_->setAccessibleName(tr("Table of the section"));
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    table_->setAlternatingRowColors(true);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(20);
    split->addWidget(section_);
    split->addWidget(table_);
    split->setSizes({620, 420});
    connect(section_, &SectionView::hovered, this, [this](std::optional<double> station) {
        if (station)
            mark(*station);
        else
            session_.selection().setHover(std::nullopt);
    });
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row) {
        if (row >= 0 && static_cast<std::size_t>(row) < answer_.rows.size() && table_->hasFocus()) {
            section_->setMarked(answer_.rows[static_cast<std::size_t>(row)].station);
            mark(answer_.rows[static_cast<std::size_t>(row)].station);
        }
    });
    return split;
}

/// The place is marked in all views.
void SlicePage::mark(double station) {
    const auto line = path();
    if (line.empty()) return session_.selection().setHover(std::nullopt);
    session_.selection().setHover(Hover{geometry::positionAt(line, station).place, std::nullopt, {}});
}

void SlicePage::offerShown() {
    shows_->menu()->clear();
    const auto offer = [this](ObjectId id) {
        auto* item = shows_->menu()->addAction(QString::fromStdString(session_.document().nameOf(id)));
        item->setCheckable(true);
        item->setChecked(off_.count(id) == 0);
        connect(item, &QAction::toggled, this, [this, id](bool on) {
            if (on)
                off_.erase(id);
            else
                off_.insert(id);
            changeKept();
            refresh();
        });
    };
    for (const ObjectId id : session_.document().all<objects::Surface>()) offer(id);
    for (const ObjectId id : session_.document().all<objects::Cloud>()) offer(id);
}

SlicePage::~SlicePage() {
    worker_.reset();
}

void SlicePage::buildFields() {
    for (const SectionField field : allFields) {
        auto* item = fields_->menu()->addAction(QString::fromUtf8(terrain::fieldName(field).data()));
        item->setCheckable(true);
        item->setData(static_cast<int>(field));
        item->setChecked(std::find(chosen_.begin(), chosen_.end(), field) != chosen_.end());
        connect(item, &QAction::toggled, this, [this, field](bool on) {
            std::erase(chosen_, field);
            if (on) chosen_.push_back(field);
            std::sort(chosen_.begin(), chosen_.end());
            changeKept();
            fillTable();
        });
    }
}

void SlicePage::follow() {
    // A section that is kept, a line, an alignment, or at least two survey points in the order they were
    // picked.
    kept_ = session_.selected<objects::Section>().value_or(ObjectId{});
    if (kept_) {
        openKept();
    } else if (const auto line = session_.selected<objects::Line>()) {
        along_ = *line;
        points_.clear();
    } else if (const auto alignment = session_.selected<objects::Alignment>()) {
        along_ = *alignment;
        points_.clear();
    } else {
        std::vector<Vec2> picked;
        for (const Ref& r : session_.selection())
            if (const auto* set = session_.document().get<objects::Points>(r.object);
                set != nullptr && r.part && *r.part < set->set.size())
                picked.push_back(set->set[*r.part].plan);
        if (picked.size() > 1) {
            along_ = {};
            points_ = std::move(picked);
        }
    }
    refresh();
}

/// Shows a section as it was kept.
void SlicePage::openKept() {
    keptObject_ = session_.document().find(kept_);
    const auto* section = session_.document().get<objects::Section>(kept_);
    if (section == nullptr) return;
    along_ = section->along;
    points_ = section->axis;
    off_ = {section->off.begin(), section->off.end()};
    interval_->setText(section->interval > 0 ? QString::fromStdString(formatExact(section->interval))
                                             : QString());
    opening_ = true;
    for (QAction* item : fields_->menu()->actions()) {
        const auto field = static_cast<SectionField>(item->data().toInt());
        item->setChecked(std::find(section->fields.begin(), section->fields.end(), field) !=
                         section->fields.end());
    }
    chosen_ = section->fields;
    opening_ = false;
}

objects::Section SlicePage::asSection() const {
    objects::Section out;
    out.along = along_;
    if (!along_) out.axis = points_;
    out.off = {off_.begin(), off_.end()};
    out.fields = chosen_;
    const auto interval = typedFigure(interval_->text());
    out.interval = interval && *interval > 0 ? *interval : 0;
    return out;
}

/// What is chosen on the page belongs to the section that is open.
void SlicePage::changeKept() {
    if (!kept_ || opening_ || session_.document().get<objects::Section>(kept_) == nullptr) return;
    const auto next = asSection();
    const auto& now = *session_.document().get<objects::Section>(kept_);
    if (now.off == next.off && now.fields == next.fields && now.interval == next.interval) return;
    session_.edit(tr("Change %1").arg(QString::fromStdString(session_.document().nameOf(kept_))),
                  [id = kept_, next](const document::Document& d) -> Result<document::Edited> {
                      return document::changed<objects::Section>(d, id, [&](objects::Section& s) {
                          s.off = next.off;
                          s.fields = next.fields;
                          s.interval = next.interval;
                      });
                  });
}

void SlicePage::keep() {
    if (path().empty()) return;
    session_.edit(tr("Keep a section"), [made = asSection()](const document::Document& d) {
        return Result<document::Edited>(d.added(document::freshName<objects::Section>(d, "Section"), made));
    });
}

geometry::Path SlicePage::path() const {
    if (!along_) return geometry::pathThrough(points_);
    if (const auto* alignment = derive::Derived::in(session_.derived().alignments, along_))
        return alignment->path;
    const auto* line = derive::Derived::in(session_.derived().lines, along_);
    return line == nullptr ? geometry::Path{} : line->path;
}

void SlicePage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    refresh();
}

SlicePage::Answer SlicePage::cut(const Request& request) {
    Answer answer;
    const auto& derived = request.snapshot->derived;
    std::vector<const terrain::TinLocator*> surfaces;
    for (const auto& [id, result] : derived.surfaces) {
        if (!result->locator || request.off.count(id) != 0) continue;
        surfaces.push_back(result->locator.get());
        answer.names.push_back(derived.document.nameOf(id));
    }
    answer.rows = terrain::sectionThrough(surfaces, request.path, {request.interval});
    for (const auto& [id, tiles] : derived.clouds)
        if (request.off.count(id) == 0)
            answer.clouds.emplace_back(derived.document.nameOf(id),
                                       derive::sliceOf(derived, id, request.path, tiles->cloud().spacing()));
    return answer;
}

void SlicePage::refresh() {
    // Undone, or changed elsewhere: the page shows what is kept, and does not write its own over it.
    if (kept_ && session_.document().find(kept_) != keptObject_) openKept();
    if (session_.document().get<objects::Section>(kept_) == nullptr) kept_ = {};
    auto line = path();
    setNothing(!line.empty() ? QString()
                             : tr("Section: select a line, an alignment or two survey points to cut along."));
    if (!isVisible()) return;  // worked out when somebody looks
    const bool canCross = session_.document().get<objects::Alignment>(along_) != nullptr;
    acrossButton_->setEnabled(canCross);
    keep_->setEnabled(!line.empty() && !kept_);
    const bool across = canCross && acrossButton_->isChecked();
    views_->setCurrentIndex(across ? 1 : 0);
    // Cross-sections have an interval of their own.
    for (QWidget* w : {static_cast<QWidget*>(fields_), static_cast<QWidget*>(interval_),
                       static_cast<QWidget*>(everyLabel_)})
        w->setVisible(!across);
    if (across) {
        title_->setText(tr("Across %1").arg(QString::fromStdString(session_.document().nameOf(along_))));
        return across_->showOf(along_, off_);
    }
    const QString text = interval_->text().trimmed();
    const auto interval = text.isEmpty() ? std::optional(0.0) : typedFigure(text);
    const bool bad = !interval || *interval < 0;
    interval_->setStyleSheet(bad ? QStringLiteral("border: 1px solid #A5313C;") : QString());
    if (line.empty() || bad) {
        title_->setText(bad ? tr("The interval must be a figure above 0, or empty") : QString());
        worker_->cancel();
        return show({});
    }
    title_->setText(
        kept_    ? QString::fromStdString(session_.document().nameOf(kept_))
        : along_ ? tr("Section along %1").arg(QString::fromStdString(session_.document().nameOf(along_)))
                 : tr("Section through %1 points").arg(points_.size()));
    worker_->request({session_.snapshot(), std::move(line), *interval, off_}, true);
}

void SlicePage::show(Answer answer) {
    answer_ = std::move(answer);
    fillTable();
    draw();
}

void SlicePage::fillTable() {
    shown_ = terrain::tableOf(answer_.rows, answer_.names, chosen_);
    const int shownRows = static_cast<int>(std::min<std::size_t>(shown_.rows.size(), 5000));
    table_->clear();
    table_->setColumnCount(static_cast<int>(shown_.header.size()));
    table_->setRowCount(shownRows);
    QStringList header;
    for (const auto& h : shown_.header) header << QString::fromStdString(h);
    table_->setHorizontalHeaderLabels(header);
    for (int r = 0; r < shownRows; ++r)
        for (std::size_t c = 0; c < shown_.header.size(); ++c) {
            const auto& cell = shown_.rows[static_cast<std::size_t>(r)][c];
            auto* item =
                new QTableWidgetItem(cell ? QString::fromStdString(formatFixed(*cell, 3)) : QString());
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(r, static_cast<int>(c), item);
        }
    table_->resizeColumnsToContents();
}

void SlicePage::draw() {
    SectionData shown;
    for (std::size_t s = 0; s < answer_.names.size(); ++s) {
        SectionSeries series{QString::fromStdString(answer_.names[s]), seriesColour(s), 2, false, {}};
        for (const auto& row : answer_.rows) series.points.push_back({row.station, row.heights[s]});
        shown.series.push_back(std::move(series));
    }
    for (const auto& [name, points] : answer_.clouds) {
        if (points.empty()) continue;
        SectionSeries series{QString::fromStdString(name), theme::inkQuiet, 1, false, {}};
        series.dots = true;
        for (const auto& p : points) series.points.push_back({p.station, p.height});
        shown.series.push_back(std::move(series));
    }
    const auto& display = session_.document().settings().display;
    shown.station = [display](double d) { return QString::fromStdString(formatLength(d, display)); };
    section_->setData(std::move(shown));
}

Result<void> SlicePage::exportTo(const QString& path) const {
    if (views_->currentIndex() == 1) return format::writeTable(path.toStdString(), across_->asTable());
    const auto& display = session_.document().settings().display;
    format::Table table{"Section", shown_.header, shown_.rows, {}, display.heightDecimals};
    for (std::string& heading : table.header)
        if (!heading.ends_with(")")) heading += " [" + std::string(unitSymbol(display.unit)) + "]";
    return format::writeTable(path.toStdString(), table);
}

void SlicePage::copy() const {
    if (views_->currentIndex() == 1) {
        const auto table = across_->asTable();
        QApplication::clipboard()->setText(QString::fromStdString(format::toCsv(table, '\t')));
        Q_EMIT session_.message(tr("%1 rows copied").arg(table.rows.size()), false);
        return;
    }
    QApplication::clipboard()->setText(
        QString::fromStdString(format::toCsv({"Section", shown_.header, shown_.rows, {}}, '\t')));
    Q_EMIT session_.message(tr("%1 rows copied").arg(shown_.rows.size()), false);
}

}  // namespace erdwerk::app

#include "moc_slice_page.cpp"
