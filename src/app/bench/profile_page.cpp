#include "app/bench/profile_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QInputDialog>
#include <QMenu>
#include <QShortcut>
#include <QSplitter>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "app/kinds/profile_section.h"
#include "core/base/notation.h"
#include "core/derive/route_result.h"
#include "core/objects/profile.h"
#include "core/operations/records.h"
#include "core/route/design.h"

namespace erdwerk::app {

namespace {
enum Columns { Number, Station, Height, GradeIn, CurveLength, KValue, Depth, ColumnCount };
}

ProfilePage::ProfilePage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(8, 4, 0, 0);
    layout->setSpacing(4);
    layout->addLayout(buildBar());
    auto* splitter = new QSplitter(Qt::Horizontal);
    section_ = new SectionView;
    splitter->addWidget(section_);
    splitter->addWidget(buildTable());
    splitter->setSizes({335, 505});
    layout->addWidget(splitter, 1);
    connect(&session_, &Session::resultsChanged, this, &ProfilePage::refresh);
    connect(&session_.selection(), &Selection::changed, this, &ProfilePage::refresh);
    connect(&session_.selection(), &Selection::hoverChanged, this, &ProfilePage::showHover);
    connectBar();
    connectSection();
    refresh();
}

QLayout* ProfilePage::buildBar() {
    auto* bar = new QHBoxLayout;
    choice_ = new QComboBox;
    choice_->setAccessibleName(tr("Profile"));
    choice_->setMinimumWidth(90);
    ground_ = new QComboBox;
    ground_->setAccessibleName(tr("Ground surface"));
    ground_->setMinimumWidth(80);
    exaggeration_ = new QDoubleSpinBox;
    exaggeration_->setRange(0, 100);
    exaggeration_->setDecimals(1);
    exaggeration_->setSpecialValueText(tr("fit"));
    exaggeration_->setAccessibleName(tr("Vertical exaggeration"));
    depth_ = new QLabel;
    depth_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    add_ = new QPushButton(tr("Add PVI"));
    add_->setCheckable(true);
    add_->setToolTip(tr("Then click on the section where it is to be; Esc ends it"));
    rows_ = new QToolButton;
    rows_->setText(tr("Rows"));
    rows_->setToolTip(tr("What the table under the section shows"));
    more_ = new QToolButton;
    more_->setText(tr("More"));
    more_->setToolTip(tr("Scale, lines of the design, ground from lines, drawing, table"));
    for (auto* button : {rows_, more_}) {
        button->setPopupMode(QToolButton::InstantPopup);
        button->setMenu(new QMenu(button));
        button->setStyleSheet(QStringLiteral("padding: 2px 14px 2px 7px;"));
        connect(button->menu(), &QMenu::aboutToShow, this, &ProfilePage::fillMenus);
    }
    start_ = new QPushButton(tr("New profile"));
    for (auto* combo : {choice_, ground_}) {
        combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        combo->setMinimumContentsLength(8);
    }
    for (auto* button : {add_, start_}) button->setStyleSheet(QStringLiteral("padding: 2px 7px;"));
    bar->addWidget(choice_);
    bar->addWidget(ground_);
    bar->addWidget(new QLabel(tr("heights ×")));
    bar->addWidget(exaggeration_);
    bar->addWidget(depth_, 1);
    bar->addWidget(rows_);
    bar->addWidget(more_);
    bar->addWidget(start_);
    bar->addWidget(add_);
    return bar;
}

QWidget* ProfilePage::buildTable() {
    table_ = new QTableWidget(0, ColumnCount);
    table_->setObjectName(QStringLiteral("pvis"));
    table_->setAccessibleName(tr("PVIs of the design"));
    table_->setHorizontalHeaderLabels(
        {tr("PVI"), tr("Station"), tr("Height"), tr("Grade in"), tr("Curve"), tr("K"), tr("Fill / cut")});
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(24);
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->setAlternatingRowColors(true);
    new TableClipboard(*table_, session_, [this](const QModelIndex& cell, const QString& text) {
        return cellEdit(cell.row(), cell.column(), text);
    });
    connect(table_, &QTableWidget::cellChanged, this, &ProfilePage::edited);
    connect(table_, &QTableWidget::currentCellChanged, this, [this](int row, int, int, int) {
        section_->setActive(row < 0 ? std::nullopt : std::optional(static_cast<std::size_t>(row)));
    });
    return table_;
}

void ProfilePage::connectBar() {
    connect(choice_, &QComboBox::activated, this, [this](int i) {
        session_.selection().set({{ObjectId{choice_->itemData(i).toULongLong()}, std::nullopt}});
    });
    connect(ground_, &QComboBox::activated, this, [this](int i) {
        if (!profile_) return;
        change(tr("Choose the ground of a profile"), [ground = ObjectId{ground_->itemData(i).toULongLong()}](
                                                         objects::Profile& p) { p.ground = ground; });
    });
    connect(exaggeration_, &QDoubleSpinBox::valueChanged, this, [this](double value) {
        if (filling_ || !profile_) return;
        change(tr("Set the exaggeration of a profile"),
               [value](objects::Profile& p) { p.exaggeration = value; });
    });
    connect(add_, &QPushButton::clicked, this, &ProfilePage::addPvi);
    connect(start_, &QPushButton::clicked, this, &ProfilePage::newProfilePressed);
}

void ProfilePage::connectSection() {
    connect(section_, &SectionView::placeClicked, this, &ProfilePage::addPviAt);
    connect(section_, &SectionView::addingChanged, add_, &QPushButton::setChecked);
    connect(section_, &SectionView::handleDeleted, this,
            [this](std::size_t i) { removeAt(static_cast<int>(i)); });
    connect(section_, &SectionView::resized, this, &ProfilePage::refresh);
    connect(section_, &SectionView::stretchDragged, this, [this](std::size_t i, double rise, bool done) {
        if (!profile_) return;
        const auto edit = operations::raisePviStretch(*profile_, i, rise);
        if (done)
            session_.edit(tr("Raise the grade behind PVI %1").arg(i + 1), edit);
        else
            session_.preview(edit);
    });
    connect(section_, &SectionView::curvePulled, this, [this](std::size_t i, double length, bool done) {
        if (!profile_) return;
        const auto edit = operations::typePvi(*profile_, i, operations::PviFigure::CurveLength,
                                              formatExact(std::round(length * 10) / 10));
        if (done)
            session_.edit(tr("Pull a curve out of PVI %1").arg(i + 1), edit);
        else
            session_.preview(edit);
    });
    auto* remove = new QShortcut(QKeySequence::Delete, table_, this, &ProfilePage::removePvi);
    remove->setContext(Qt::WidgetShortcut);
    connect(section_, &SectionView::handleClicked, this,
            [this](std::size_t i) { table_->setCurrentCell(static_cast<int>(i), Height); });
    const auto drag = [this](std::size_t i, double station, double height, bool preview) {
        if (!profile_) return;
        const auto edit = operations::movePvi(*profile_, i, station, height);
        if (preview)
            session_.preview(edit);
        else
            session_.edit(tr("Move PVI %1").arg(i + 1), edit);
    };
    connect(section_, &SectionView::handleDragged, this,
            [drag](std::size_t i, double s, double h) { drag(i, s, h, true); });
    connect(section_, &SectionView::handleReleased, this,
            [drag](std::size_t i, double s, double h) { drag(i, s, h, false); });
    connect(section_, &SectionView::hovered, this, [this](std::optional<double> station) {
        const auto* a = alignment();
        if (a == nullptr || a->path.empty() || !station) return session_.selection().setHover(std::nullopt);
        session_.selection().setHover(
            Hover{route::placeAt(*a, *station), Ref{profile()->alignment, std::nullopt}, std::nullopt});
    });
}

const objects::Profile* ProfilePage::profile() const {
    return profile_ ? session_.derived().document.get<objects::Profile>(*profile_) : nullptr;
}

const route::AlignmentGeometry* ProfilePage::alignment() const {
    const auto* p = profile();
    return p == nullptr ? nullptr : derive::Derived::in(session_.derived().alignments, p->alignment);
}

/// As it is read on the line, equations applied.
QString ProfilePage::stationText(double running) const {
    const auto* a = alignment();
    return QString::fromStdString(
        formatStation(a == nullptr ? running : a->read(running), session_.document().settings().display));
}

/// The selected profile, or that of the selected alignment, or the one shown before, or any.
std::optional<ObjectId> ProfilePage::wanted() const {
    const auto& document = session_.derived().document;
    std::optional<ObjectId> found = session_.selected<objects::Profile>();
    const auto selectedAlignment = session_.selected<objects::Alignment>();
    const auto all = document.all<objects::Profile>();
    for (const ObjectId id : all)
        if (!found && selectedAlignment &&
            document.get<objects::Profile>(id)->alignment == *selectedAlignment)
            found = id;
    if (!found && profile_ && document.get<objects::Profile>(*profile_) != nullptr) found = profile_;
    if (!found && !all.empty()) found = all.front();
    return found;
}

void ProfilePage::fillChoices() {
    const auto& document = session_.derived().document;
    filling_ = true;
    choice_->clear();
    for (const ObjectId id : document.all<objects::Profile>())
        choice_->addItem(QString::fromStdString(document.nameOf(id)),
                         QVariant::fromValue<qulonglong>(id.value));
    choice_->setCurrentIndex(profile_ ? choice_->findData(QVariant::fromValue<qulonglong>(profile_->value))
                                      : -1);
    ground_->clear();
    for (const ObjectId id : document.all<objects::Surface>())
        ground_->addItem(QString::fromStdString(document.nameOf(id)),
                         QVariant::fromValue<qulonglong>(id.value));
    const auto* p = profile();
    ground_->setCurrentIndex(
        p == nullptr ? -1 : ground_->findData(QVariant::fromValue<qulonglong>(p->ground.value)));
    for (QWidget* w : {static_cast<QWidget*>(choice_), static_cast<QWidget*>(ground_),
                       static_cast<QWidget*>(exaggeration_), static_cast<QWidget*>(add_),
                       static_cast<QWidget*>(rows_), static_cast<QWidget*>(more_)})
        w->setEnabled(p != nullptr);
    // The rack has it, too; with a profile on the page there is no room to spare.
    start_->setVisible(p == nullptr);
    start_->setEnabled(!document.all<objects::Alignment>().empty());
    start_->setToolTip(start_->isEnabled() ? tr("A profile for the selected alignment")
                                           : tr("Make an alignment first"));
    if (p != nullptr) exaggeration_->setValue(p->exaggeration);
    filling_ = false;
}

/// On a screen of 96 dots an inch, as the scale says; 0 where all of it is to fit.
double ProfilePage::pixelsPerUnit(const objects::Profile& profile) const {
    constexpr double perMillimetre = 96 / 25.4;
    return profile.scale > 0
               ? metresPer(session_.document().settings().display.unit) * 1000 / profile.scale * perMillimetre
               : 0;
}

void ProfilePage::refresh() {
    profile_ = wanted();
    fillChoices();
    const auto* p = profile();
    const auto* a = alignment();
    const auto& newest = session_.document();
    setNothing(!newest.all<objects::Profile>().empty() ? QString()
               : newest.all<objects::Alignment>().empty()
                   ? tr("Profile: make an alignment from a line first; its ground and design are shown here.")
                   : tr("Profile: New profile, in Route, shows the ground along the alignment."));
    SectionData shown;
    if (p == nullptr || a == nullptr || a->path.empty()) {
        section_->setData(std::move(shown));
        fillTable({});
        return;
    }
    // Figures stand as far apart as they are wide.
    const double room = std::max(100, section_->width() - 70);
    section_->setScale(pixelsPerUnit(*p));
    const double perUnit = p->scale > 0 ? pixelsPerUnit(*p) : room / std::max(a->length, 1e-6);
    shown = profileSection(session_.derived(), *profile_, roundStep(64 / perUnit));
    section_->setData(std::move(shown));
    showExaggeration();
    fillTable(p->design);
}

void ProfilePage::fillTable(const std::vector<route::Pvi>& design) {
    filling_ = true;
    const DisplaySettings& display = session_.document().settings().display;
    const auto figures = route::figures(design);
    const auto ground =
        profile_ ? session_.derived().profiles.find(*profile_) : session_.derived().profiles.end();
    const auto* p = profile();
    const auto& laid = p == nullptr || ground == session_.derived().profiles.end()
                           ? design
                           : derive::designOf(*p, ground->second.get());
    table_->setRowCount(static_cast<int>(design.size()));
    for (std::size_t i = 0; i < design.size(); ++i) {
        const auto put = [&](int column, const QString& text, bool editable) {
            auto* item = new QTableWidgetItem(text);
            if (!editable) {
                item->setFlags(item->flags() & ~Qt::ItemIsEditable);
                item->setForeground(theme::inkQuiet);
            }
            item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
            table_->setItem(static_cast<int>(i), column, item);
        };
        put(Number, QString::number(i + 1), false);
        put(Station, stationText(design[i].station), true);
        const bool onGround = design[i].onGround || (i > 0 && design[i - 1].onGround);
        const auto there = onGround ? route::designAt(laid, design[i].station) : std::nullopt;
        put(Height, QString::fromStdString(formatHeight(there ? there->height : design[i].height, display)),
            !onGround);
        put(GradeIn,
            i > 0 && design[i - 1].onGround ? QStringLiteral("=%1").arg(QString::fromStdString(
                                                  formatRise(*design[i - 1].onGround, display)))
            : figures[i].gradeIn ? QString::fromStdString(formatGrade(*figures[i].gradeIn, display)) +
                                       (design[i - 1].locked ? tr(" locked") : QString())
                                 : QString(),
            i > 0);
        put(CurveLength,
            design[i].byK > 0
                ? QStringLiteral("K%1").arg(QString::fromStdString(formatExact(design[i].byK)))
                : QString::fromStdString(formatFixed(design[i].curveLength, display.lengthDecimals)),
            i > 0 && i + 1 < design.size());
        put(KValue,
            figures[i].k ? QString::fromStdString(formatFixed(*figures[i].k, 1)) +
                               (figures[i].crest ? tr(" crest") : tr(" sag"))
                         : QString(),
            false);
        const auto depth = ground != session_.derived().profiles.end()
                               ? route::fillDepth(laid, ground->second->ground, design[i].station)
                               : std::nullopt;
        put(Depth,
            depth ? QString::fromStdString((*depth >= 0 ? "+" : "") +
                                           formatFixed(*depth, display.heightDecimals))
                  : QString(),
            false);
    }
    filling_ = false;
}

void ProfilePage::change(const QString& what, const std::function<void(objects::Profile&)>& change) {
    session_.edit(what, [&, id = *profile_](const document::Document& d) -> Result<document::Edited> {
        return document::changed<objects::Profile>(d, id, change);
    });
}

std::optional<document::Edit> ProfilePage::cellEdit(int row, int column, const QString& text) const {
    if (!profile_ || row < 0 || (table_->item(row, column)->flags() & Qt::ItemIsEditable) == 0)
        return std::nullopt;
    using operations::PviFigure;
    const auto figure =
        column == Station
            ? PviFigure::Station
            : (column == CurveLength ? PviFigure::CurveLength
                                     : (column == GradeIn ? PviFigure::GradeIn : PviFigure::Height));
    return operations::typePvi(*profile_, static_cast<std::size_t>(row), figure, text.toStdString());
}

void ProfilePage::edited(int row, int column) {
    if (filling_) return;
    const QString text = table_->item(row, column)->text();
    const auto edit = cellEdit(row, column, text);
    const QString name = profile_ ? QString::fromStdString(session_.document().nameOf(*profile_)) : QString();
    const QString heading = table_->horizontalHeaderItem(column)->text().toLower();
    if (!edit || !session_.edit(tr("%1, PVI %2: %3 %4").arg(name).arg(row + 1).arg(heading, text), *edit))
        QMetaObject::invokeMethod(this, &ProfilePage::refresh, Qt::QueuedConnection);
}

void ProfilePage::addPvi() {
    if (!profile_) return;
    const auto* p = session_.document().get<objects::Profile>(*profile_);
    if (p != nullptr && p->design.size() < 2) {
        // The first press makes the ends, on the ground.
        add_->setChecked(false);
        session_.edit(
            tr("Begin the design of %1").arg(QString::fromStdString(session_.document().nameOf(*profile_))),
            operations::addPvi(session_.results(), *profile_));
        return;
    }
    section_->setAdding(add_->isChecked());
    if (section_->isAdding())
        Q_EMIT session_.message(tr("Click on the section where the PVI is to be"), false);
}

void ProfilePage::addPviAt(double station, double height) {
    if (!profile_) return;
    const auto& display = session_.document().settings().display;
    session_.edit(tr("Add a PVI at %1, %2")
                      .arg(stationText(station), QString::fromStdString(formatHeight(height, display))),
                  operations::addPviAt(session_.results(), *profile_, station, height));
}

void ProfilePage::removePvi() {
    removeAt(table_->currentRow());
}

void ProfilePage::removeAt(int row) {
    if (profile_ && row >= 0)
        session_.edit(tr("Remove PVI %1").arg(row + 1),
                      operations::removePvi(*profile_, static_cast<std::size_t>(row)));
}

void ProfilePage::showExaggeration() {
    const double drawn = section_->shownExaggeration();
    const double asked = exaggeration_->value();
    exaggeration_->setSpecialValueText(tr("fit, %1").arg(drawn, 0, 'f', 1));
    // What was asked for may not fit the height there is: then the field says what is drawn.
    const bool less = asked > 0 && std::abs(drawn - asked) > 0.02 * asked;
    exaggeration_->setSuffix(less ? tr(", drawn %1").arg(drawn, 0, 'f', 1) : QString());
}

void ProfilePage::showHover() {
    const auto* a = alignment();
    const auto& hover = session_.selection().hover();
    depth_->clear();
    if (a == nullptr || !hover || a->path.empty()) return section_->setMarked(std::nullopt);
    const auto so = route::stationOffset(*a, hover->place);
    if (std::abs(so.offset) > a->length * 0.1) return section_->setMarked(std::nullopt);
    section_->setMarked(so.station);
    const auto& display = session_.document().settings().display;
    QString text = stationText(so.station);
    const auto it = session_.derived().profiles.find(*profile_);
    const auto& design =
        derive::designOf(*profile(), derive::Derived::in(session_.derived().profiles, *profile_));
    if (const auto d = route::designAt(design, so.station))
        text += tr("   design %1, %2")
                    .arg(QString::fromStdString(formatHeight(d->height, display)),
                         QString::fromStdString(formatGrade(d->grade, display)));
    if (it != session_.derived().profiles.end())
        if (const auto depth = route::fillDepth(design, it->second->ground, so.station))
            text += (*depth >= 0 ? tr("   fill %1") : tr("   cut %1"))
                        .arg(QString::fromStdString(formatLength(std::abs(*depth), display)));
    depth_->setText(QStringLiteral("  ") + text);
}

}  // namespace erdwerk::app

#include "moc_profile_page.cpp"
