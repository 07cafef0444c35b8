#include "app/bench/findings_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/bench/table_clipboard.h"
#include "core/check/finding_kinds.h"
#include "core/format/output.h"
#include "core/linework/line3d.h"
#include "core/operations/objects.h"

namespace erdwerk::app {

FindingsPage::FindingsPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    layout->addLayout(buildBar());
    layout->addWidget(buildConfirm());
    list_ = new QTreeWidget;
    list_->setObjectName(QStringLiteral("findings"));
    list_->setAccessibleName(tr("Findings"));
    list_->setIndentation(14);
    list_->setHeaderLabels({tr("Severity"), tr("What and where"), tr("Fixes")});
    list_->header()->setStretchLastSection(false);
    list_->header()->setSectionResizeMode(1, QHeaderView::Stretch);
    list_->header()->setSectionResizeMode(2, QHeaderView::ResizeToContents);
    list_->setColumnWidth(0, 104);
    list_->setAlternatingRowColors(true);
    list_->installEventFilter(this);
    layout->addWidget(list_, 1);
    auto* clipboard = new TableClipboard(*list_, session_);
    connect(clipboard, &TableClipboard::menuAsked, this, [this](QMenu* menu) {
        if (const int at = findingOf(list_->currentItem()); at >= 0) {
            menu->addSeparator();
            fillMenu(*menu, static_cast<std::size_t>(at));
        }
    });
    connect(&session_, &Session::resultsChanged, this, &FindingsPage::refresh);
    connect(&session_, &Session::opened, this, [this] {
        highest_ = acceptedThen_ = 0;
        goneTo_ = -1;
        goNext_ = false;
        fixAll_.reset();
        confirm_->hide();
    });
    connect(list_, &QTreeWidget::itemClicked, this, &FindingsPage::press);
    refresh();
}

QLayout* FindingsPage::buildBar() {
    summary_ = new QLabel;
    summary_->setContentsMargins(10, 5, 10, 5);
    summary_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    auto* bar = new QHBoxLayout;
    bar->setContentsMargins(0, 2, 8, 2);
    reason_ = new QLineEdit;
    reason_->setObjectName(QStringLiteral("reason"));
    reason_->setAccessibleName(tr("Why this is meant to be so"));
    reason_->setPlaceholderText(tr("why this is meant to be so, then Enter"));
    reason_->setFixedWidth(330);
    reason_->installEventFilter(this);
    reason_->hide();
    auto* exportButton = new QPushButton(tr("Export…"));
    exportButton->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    exportButton->setFocusPolicy(Qt::NoFocus);
    connect(exportButton, &QPushButton::clicked, this, &FindingsPage::exportPressed);
    accepted_ = new QCheckBox(tr("Show accepted"));
    accepted_->setObjectName(QStringLiteral("showAccepted"));
    accepted_->setFocusPolicy(Qt::NoFocus);
    connect(accepted_, &QCheckBox::toggled, this, &FindingsPage::fill);
    bar->addWidget(summary_, 1);
    bar->addWidget(accepted_);
    bar->addWidget(reason_);
    bar->addWidget(exportButton);
    return bar;
}

QWidget* FindingsPage::buildConfirm() {
    confirm_ = new QWidget;
    confirm_->setObjectName(QStringLiteral("fixAll"));
    confirm_->setAttribute(Qt::WA_StyledBackground);
    confirm_->setStyleSheet(QStringLiteral("#fixAll { background: #FBEFD9; }"));
    auto* row = new QHBoxLayout(confirm_);
    row->setContentsMargins(10, 3, 8, 3);
    confirmText_ = new QLabel;
    confirmText_->setObjectName(QStringLiteral("fixAllText"));
    auto* yes = new QPushButton(tr("Fix them"));
    yes->setObjectName(QStringLiteral("fixAllYes"));
    auto* no = new QPushButton(tr("Leave them"));
    row->addWidget(confirmText_, 1);
    row->addWidget(yes);
    row->addWidget(no);
    confirm_->hide();
    connect(no, &QPushButton::clicked, this, [this] {
        fixAll_.reset();
        confirm_->hide();
        list_->setFocus();
    });
    connect(yes, &QPushButton::clicked, this, [this] {
        if (!fixAll_) return;
        const auto [kind, way] = *std::exchange(fixAll_, std::nullopt);
        confirm_->hide();
        list_->setFocus();
        // What was found is what is fixed: objects that were edited meanwhile are refused.
        std::vector<ObjectId> objects;
        for (const auto& f : shown_->findings)
            if (f.kind == kind) objects.insert(objects.end(), f.objects.begin(), f.objects.end());
        goNext_ = session_
                      .edit(tr("Fix all: %1").arg(QString::fromStdString(way)),
                            document::onlyWhileSame(shown_->derived.document, objects,
                                                    check::fixAll(shown_->findings, kind, way)))
                      .done;
    });
    return confirm_;
}

void FindingsPage::askToFixAll(const std::string& kind, const std::string& way) {
    for (const auto& [known, count] : check::waysToFixAll(shown_->findings, kind)) {
        if (known != way) continue;
        fixAll_ = {kind, way};
        confirmText_->setText(tr("%1 findings at once: %2. One step, which Ctrl+Z takes back.")
                                  .arg(count)
                                  .arg(QString::fromStdString(way)));
        confirm_->show();
        confirm_->findChild<QPushButton*>(QStringLiteral("fixAllYes"))->setFocus();
    }
}

void FindingsPage::lookedAt() {
    highest_ = session_.snapshot()->findings.size();
    acceptedThen_ = session_.document().settings().accepted.size();
}

void FindingsPage::refresh() {
    shown_ = session_.snapshot();
    const auto& findings = shown_->findings;
    if (findings.size() >= highest_) lookedAt();
    setNothing(!findings.empty() || !session_.document().settings().accepted.empty() ? QString()
               : highest_ > 0 ? tr("Findings: none left, %1 fixed.").arg(highest_)
                              : tr("Findings: none. What contradicts itself in the project is listed here."));
    // Rows are made when somebody looks.
    if (isVisible()) fill();
}

void FindingsPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    fill();
}

void FindingsPage::fill() {
    const auto& findings = shown_->findings;
    const std::size_t accepted = session_.document().settings().accepted.size();
    // What was accepted is not fixed.
    const std::size_t gone = highest_ - std::min(highest_, findings.size());
    const std::size_t fixed = gone - std::min(gone, accepted - std::min(accepted, acceptedThen_));
    QString text = findings.empty() ? tr("No findings: nothing in the project contradicts itself.")
                                    : (findings.size() == 1 ? tr("1 finding left")
                                                            : tr("%1 findings left").arg(findings.size()));
    if (fixed > 0) text += tr(", %1 fixed since the last look").arg(fixed);
    if (accepted > 0) text += tr(" · %1 accepted").arg(accepted);
    if (!findings.empty())
        text += tr(" · Enter goes to the next · 1, 2, 3 … fix it · A accepts it with a reason");
    summary_->setText(text);
    const int row = findingOf(list_->currentItem());
    list_->clear();
    for (std::size_t i = 0; i < findings.size(); ++i) addRow(findings[i], i);
    accepted_->setVisible(accepted > 0);
    if (accepted_->isChecked()) fillAccepted();
    const int last = static_cast<int>(findings.size()) - 1;
    if (row >= 0 && last >= 0) list_->setCurrentItem(list_->topLevelItem(std::min(row, last)));
    if (std::exchange(goNext_, false) && last >= 0) go(std::clamp(row, 0, last));
}

void FindingsPage::addRow(const check::Finding& f, std::size_t index) {
    auto* item = new QTreeWidgetItem(list_);
    const bool must = f.severity == check::Severity::MustFix;
    item->setText(0, must ? tr("● must fix")
                          : (f.severity == check::Severity::LookAt ? tr("▲ look at") : tr("○ note")));
    item->setForeground(0, must ? theme::madder : theme::ochre.darker(135));
    item->setText(1, QString::fromStdString(f.text));
    QString help = QString::fromStdString(f.text);
    if (f.at)
        help += tr("  at  ") + QString::fromStdString(
                                   formatPosition(f.at->x, f.at->y, session_.document().settings().display));
    item->setToolTip(1, help);
    item->setData(1, Qt::AccessibleTextRole, help);
    for (const auto& part : f.parts) {
        auto* row = new QTreeWidgetItem(item);
        row->setText(1, QString::fromStdString(part.text) + QStringLiteral("   ") +
                            QString::fromStdString(formatPosition(part.at.x, part.at.y,
                                                                  session_.document().settings().display)));
    }
    // Buttons cost time to make; the keys work on every row.
    if (index < 300) list_->setItemWidget(item, 2, buttonsFor(f, index));
    item->setSizeHint(0, QSize(0, 27));
}

int FindingsPage::findingOf(QTreeWidgetItem* row) const {
    if (row == nullptr) return -1;
    if (row->parent() != nullptr) row = row->parent();
    const int at = list_->indexOfTopLevelItem(row);
    return at < static_cast<int>(shown_->findings.size()) ? at : -1;
}

void FindingsPage::press(QTreeWidgetItem* row) {
    const int at = findingOf(row);
    if (at < 0) return;
    go(at);
    if (row->parent() == nullptr) return;
    const auto& part = shown_->findings[static_cast<std::size_t>(at)]
                           .parts[static_cast<std::size_t>(row->parent()->indexOfChild(row))];
    Q_EMIT session_.selection().goToPlace(part.at);
    session_.selection().setHover(Hover{part.at, std::nullopt, std::nullopt});
}

void FindingsPage::fillAccepted() {
    const auto& document = session_.document();
    const auto& all = document.settings().accepted;
    for (std::size_t i = 0; i < all.size(); ++i) {
        auto* item = new QTreeWidgetItem(list_);
        item->setText(0, tr("✓ accepted"));
        item->setForeground(0, theme::spruce);
        QStringList names;
        for (const ObjectId id : all[i].objects)
            if (document.find(id)) names << QString::fromStdString(document.nameOf(id));
        item->setText(1, tr("%1 of %2: %3")
                             .arg(QString::fromStdString(all[i].kind), names.join(tr(" and ")),
                                  QString::fromStdString(all[i].reason)));
        auto* back = new QPushButton(tr("Take back"));
        back->setToolTip(tr("It is a finding again"));
        back->setStyleSheet(QStringLiteral("padding: 1px 6px;"));
        back->setFocusPolicy(Qt::NoFocus);
        connect(back, &QPushButton::clicked, this, [this, a = all[i]] {
            session_.edit(tr("No longer accept a finding"), operations::takeBackAcceptance(a));
        });
        list_->setItemWidget(item, 2, back);
        item->setSizeHint(0, QSize(0, 27));
    }
}

namespace {

QString briefOf(const check::Fix& fix) {
    return QString::fromStdString(fix.brief.empty() ? fix.label : fix.brief);
}

}  // namespace

QWidget* FindingsPage::buttonsFor(const check::Finding& f, std::size_t index) {
    auto* buttons = new QWidget;
    auto* row = new QHBoxLayout(buttons);
    row->setContentsMargins(2, 1, 2, 1);
    row->setSpacing(4);
    row->addStretch(1);
    // The first ways stand as buttons, the rest in the list behind them.
    constexpr std::size_t asButtons = 2;
    for (std::size_t k = 0; k < std::min(f.fixes.size(), asButtons); ++k) {
        auto* button = new QPushButton(QStringLiteral("%1 %2").arg(k + 1).arg(briefOf(f.fixes[k])));
        button->setToolTip(QString::fromStdString(f.fixes[k].label));
        button->setStyleSheet(QStringLiteral("padding: 1px 6px;"));
        button->setFocusPolicy(Qt::NoFocus);
        connect(button, &QPushButton::clicked, this, [this, index, k] { apply(static_cast<int>(index), k); });
        row->addWidget(button);
    }
    auto* more = new QPushButton(tr("More"));
    more->setToolTip(tr("All fixes, all of this kind at once, and accepting it"));
    more->setStyleSheet(QStringLiteral("padding: 1px 6px;"));
    more->setFocusPolicy(Qt::NoFocus);
    connect(more, &QPushButton::clicked, this, [this, more, index] {
        auto* menu = new QMenu(this);
        menu->setAttribute(Qt::WA_DeleteOnClose);
        fillMenu(*menu, index);
        menu->popup(more->mapToGlobal(QPoint(0, more->height())));
    });
    row->addWidget(more);
    return buttons;
}

void FindingsPage::fillMenu(QMenu& menu, std::size_t index) {
    const auto& f = shown_->findings[index];
    const auto add = [&](const QString& text, auto run) {
        connect(menu.addAction(text), &QAction::triggered, this, run, Qt::QueuedConnection);
    };
    add(tr("Go there"), [this, index] { go(static_cast<int>(index)); });
    for (std::size_t k = 0; k < f.fixes.size(); ++k)
        add(QStringLiteral("%1   %2").arg(k + 1).arg(QString::fromStdString(f.fixes[k].label)),
            [this, index, k] { apply(static_cast<int>(index), k); });
    if (f.kind == check::kinds::fit)
        add(tr("Trace the crease here"), [this, index, surface = f.objects.front()] {
            go(static_cast<int>(index));
            Q_EMIT tracePressed(surface);
        });
    if (const auto point = withoutHeight(index))
        add(tr("Type its height"), [this, index, point = *point] {
            go(static_cast<int>(index));
            Q_EMIT typePressed(point);
        });
    menu.addSeparator();
    for (const auto& [way, count] : check::waysToFixAll(shown_->findings, f.kind))
        if (count > 1)
            add(tr("All %1 of this kind: %2").arg(count).arg(QString::fromStdString(way)),
                [this, kind = f.kind, name = way] { askToFixAll(kind, name); });
    menu.addSeparator();
    add(tr("Accept with a reason…"), [this, index] {
        list_->setCurrentItem(list_->topLevelItem(static_cast<int>(index)));
        askReason();
    });
}

std::optional<Ref> FindingsPage::withoutHeight(std::size_t index) const {
    const auto& f = shown_->findings[index];
    if (f.kind != check::kinds::withoutHeight || f.objects.empty() || !f.at) return std::nullopt;
    const auto* line = derive::Derived::in(session_.derived().lines, f.objects.front());
    for (std::size_t i = 0; line != nullptr && i < line->vertices.size(); ++i)
        if (line->vertices[i].place == *f.at) return Ref{f.objects.front(), i};
    return std::nullopt;
}

Result<void> FindingsPage::exportTo(const QString& path) const {
    return format::replaceFile(path.toStdString(), check::toCsv(session_.snapshot()->findings,
                                                                &session_.document().settings().display));
}

void FindingsPage::askReason() {
    const int at = findingOf(list_->currentItem());
    if (at < 0) return;
    asked_ = shown_->findings[static_cast<std::size_t>(at)];
    reason_->clear();
    reason_->show();
    reason_->setFocus();
}

void FindingsPage::accept(const QString& reason) {
    if (!asked_ || reason.trimmed().isEmpty()) return;
    const auto edit = operations::accept(check::acceptance(*asked_, reason.trimmed().toStdString()));
    asked_.reset();
    reason_->hide();
    list_->setFocus();
    goNext_ = session_.edit(tr("Accept a finding"), edit).done;
}

void FindingsPage::go(int index) {
    if (index < 0 || static_cast<std::size_t>(index) >= shown_->findings.size()) return;
    const auto& f = shown_->findings[static_cast<std::size_t>(index)];
    goneTo_ = index;
    std::vector<Ref> refs;
    for (const ObjectId id : f.objects)
        if (session_.document().get<objects::Points>(id) == nullptr) refs.push_back({id, std::nullopt});
    session_.selection().set(std::move(refs));
    if (!f.at) return;
    Q_EMIT session_.selection().goToPlace(*f.at);
    session_.selection().setHover(
        Hover{*f.at, std::nullopt, f.heights.empty() ? std::nullopt : std::optional(f.heights.front())});
}

void FindingsPage::apply(int finding, std::size_t fix) {
    const auto snapshot = shown_;
    if (finding < 0 || static_cast<std::size_t>(finding) >= snapshot->findings.size()) return;
    const auto& f = snapshot->findings[static_cast<std::size_t>(finding)];
    if (fix >= f.fixes.size()) return;
    // A fix knows what the finding is about as it was when it was found: points by number, places, heights.
    list_->setCurrentItem(list_->topLevelItem(finding));
    goNext_ =
        session_
            .edit(QString::fromStdString(f.fixes[fix].label), check::mend(snapshot->derived.document, f, fix))
            .done;
}

bool FindingsPage::eventFilter(QObject* watched, QEvent* event) {
    if (watched == reason_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        if (key == Qt::Key_Return || key == Qt::Key_Enter) {
            accept(reason_->text());
            return true;
        }
        if (key == Qt::Key_Escape) {
            asked_.reset();
            reason_->hide();
            list_->setFocus();
            return true;
        }
    }
    if (watched == list_ && event->type() == QEvent::KeyPress &&
        static_cast<QKeyEvent*>(event)->modifiers() == Qt::NoModifier &&
        keyPressed(static_cast<QKeyEvent*>(event)->key()))
        return true;
    return QWidget::eventFilter(watched, event);
}

bool FindingsPage::keyPressed(int key) {
    const int count = static_cast<int>(shown_->findings.size());
    const int at = findingOf(list_->currentItem());
    if ((key == Qt::Key_Return || key == Qt::Key_Enter) && count > 0) {
        // The row that is marked comes first, when the plan has not been there yet.
        const int next = at >= 0 && at != goneTo_ ? at : (at + 1) % count;
        list_->setCurrentItem(list_->topLevelItem(next));
        go(next);
        return true;
    }
    if (key == Qt::Key_A && at >= 0) {
        askReason();
        return true;
    }
    if (key >= Qt::Key_1 && key <= Qt::Key_9 && at >= 0) {
        apply(at, static_cast<std::size_t>(key - Qt::Key_1));
        return true;
    }
    return false;
}

}  // namespace erdwerk::app

#include "moc_findings_page.cpp"
