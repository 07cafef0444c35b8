#include "app/bench/findings_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "core/format/output.h"
#include "core/operations/ground.h"

namespace erdwerk::app {

FindingsPage::FindingsPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    summary_ = new QLabel;
    summary_->setContentsMargins(10, 5, 10, 5);
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
    summary_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    accepted_ = new QCheckBox(tr("Show accepted"));
    accepted_->setObjectName(QStringLiteral("showAccepted"));
    accepted_->setFocusPolicy(Qt::NoFocus);
    connect(accepted_, &QCheckBox::toggled, this, &FindingsPage::fill);
    bar->addWidget(summary_, 1);
    bar->addWidget(accepted_);
    bar->addWidget(reason_);
    bar->addWidget(exportButton);
    layout->addLayout(bar);
    list_ = new QTreeWidget;
    list_->setObjectName(QStringLiteral("findings"));
    list_->setAccessibleName(tr("Findings"));
    list_->setRootIsDecorated(false);
    list_->setHeaderLabels({tr("Severity"), tr("What and where"), tr("Fixes")});
    list_->header()->setStretchLastSection(false);
    list_->header()->setSectionResizeMode(1, QHeaderView::Stretch);
    list_->header()->setSectionResizeMode(2, QHeaderView::ResizeToContents);
    list_->setColumnWidth(0, 90);
    list_->setAlternatingRowColors(true);
    list_->installEventFilter(this);
    layout->addWidget(list_, 1);
    connect(&session_, &Session::resultsChanged, this, &FindingsPage::refresh);
    connect(&session_, &Session::opened, this, [this] { highest_ = 0; });
    connect(list_, &QTreeWidget::itemClicked, this,
            [this](QTreeWidgetItem* item) { go(list_->indexOfTopLevelItem(item)); });
    refresh();
}

void FindingsPage::lookedAt() {
    highest_ = session_.snapshot()->findings.size();
}

void FindingsPage::refresh() {
    shown_ = session_.snapshot();
    const auto& findings = shown_->findings;
    highest_ = std::max(highest_, findings.size());
    // Rows are made when somebody looks.
    if (isVisible()) fill();
}

void FindingsPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    fill();
}

void FindingsPage::fill() {
    const auto& findings = shown_->findings;
    const std::size_t fixed = highest_ - findings.size();
    QString text = findings.empty() ? tr("No findings: nothing in the project contradicts itself.")
                                    : (findings.size() == 1 ? tr("1 finding left")
                                                            : tr("%1 findings left").arg(findings.size()));
    if (fixed > 0) text += tr(", %1 fixed since the last look").arg(fixed);
    if (!findings.empty())
        text += tr(" · Enter goes to the next · 1, 2, 3 … apply its fixes · A accepts it with a reason");
    const std::size_t accepted = session_.document().settings().accepted.size();
    if (accepted > 0) text += tr(" · %1 accepted").arg(accepted);
    summary_->setText(text);
    const int row = list_->currentItem() != nullptr ? list_->indexOfTopLevelItem(list_->currentItem()) : -1;
    list_->clear();
    for (std::size_t i = 0; i < findings.size(); ++i) {
        const auto& f = findings[i];
        auto* item = new QTreeWidgetItem(list_);
        const bool must = f.severity == check::Severity::MustFix;
        item->setText(0, must ? tr("● must fix")
                              : (f.severity == check::Severity::LookAt ? tr("▲ look at") : tr("○ note")));
        item->setForeground(0, must ? theme::madder : theme::ochre.darker(135));
        item->setText(1, QString::fromStdString(f.text));
        QString help = QString::fromStdString(f.text);
        if (f.at)
            help += tr("  at  ") + QString::fromStdString(formatPosition(
                                       f.at->x, f.at->y, session_.document().settings().display));
        item->setToolTip(1, help);
        // Buttons cost time to make; the keys work on every row.
        if (i < 300) list_->setItemWidget(item, 2, buttonsFor(f, i));
        item->setSizeHint(0, QSize(0, 27));
    }
    accepted_->setVisible(accepted > 0);
    if (accepted_->isChecked()) fillAccepted();
    if (row >= 0 && list_->topLevelItemCount() > 0)
        list_->setCurrentItem(list_->topLevelItem(std::min(row, list_->topLevelItemCount() - 1)));
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

QWidget* FindingsPage::buttonsFor(const check::Finding& f, std::size_t index) {
    auto* buttons = new QWidget;
    auto* row = new QHBoxLayout(buttons);
    row->setContentsMargins(2, 1, 2, 1);
    row->setSpacing(4);
    const auto add = [&](const QString& label, const QString& help, const std::function<void()>& run) {
        auto* button = new QPushButton(label);
        button->setToolTip(help);
        button->setStyleSheet(QStringLiteral("padding: 1px 6px;"));
        button->setFocusPolicy(Qt::NoFocus);
        connect(button, &QPushButton::clicked, this, run);
        row->addWidget(button);
    };
    for (std::size_t k = 0; k < f.fixes.size(); ++k)
        add(QString::fromStdString(f.fixes[k].brief.empty() ? f.fixes[k].label : f.fixes[k].brief),
            tr("%1: %2").arg(k + 1).arg(QString::fromStdString(f.fixes[k].label)),
            [this, index, k] { apply(static_cast<int>(index), k); });
    if (f.kind == "fit")
        add(tr("Trace the crease here"), tr("Goes there and starts Trace crease"),
            [this, index, surface = f.objects.front()] {
                go(static_cast<int>(index));
                Q_EMIT tracePressed(surface);
            });
    add(tr("Accept…"), tr("A: it is meant to be so; a reason is asked for"), [this, index] {
        list_->setCurrentItem(list_->topLevelItem(static_cast<int>(index)));
        askReason();
    });
    row->addStretch(1);
    return buttons;
}

Result<void> FindingsPage::exportTo(const QString& path) const {
    return format::replaceFile(path.toStdString(), check::toCsv(session_.snapshot()->findings));
}

void FindingsPage::askReason() {
    const int at = list_->currentItem() != nullptr ? list_->indexOfTopLevelItem(list_->currentItem()) : -1;
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
    session_.edit(tr("Accept a finding"), edit);
}

void FindingsPage::go(int index) {
    if (index < 0 || static_cast<std::size_t>(index) >= shown_->findings.size()) return;
    const auto& f = shown_->findings[static_cast<std::size_t>(index)];
    std::vector<Ref> refs;
    for (const ObjectId id : f.objects)
        if (session_.document().get<objects::Points>(id) == nullptr) refs.push_back({id, std::nullopt});
    session_.select(std::move(refs));
    if (!f.at) return;
    Q_EMIT session_.goToPlace(*f.at);
    session_.setHover(
        Hover{*f.at, std::nullopt, f.heights.empty() ? std::nullopt : std::optional(f.heights.front())});
}

void FindingsPage::apply(int finding, std::size_t fix) {
    const auto snapshot = shown_;
    if (finding < 0 || static_cast<std::size_t>(finding) >= snapshot->findings.size()) return;
    const auto& f = snapshot->findings[static_cast<std::size_t>(finding)];
    if (fix >= f.fixes.size()) return;
    // A fix knows what the finding is about as it was when it was found: points by number, places, heights.
    session_.edit(QString::fromStdString(f.fixes[fix].label),
                  document::onlyWhileSame(snapshot->derived.document, f.objects,
                                          [apply = f.fixes[fix].apply](const document::Document& d)
                                              -> Result<document::Edited> { return apply(d); }));
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
    if (watched == list_ && event->type() == QEvent::KeyPress) {
        const int key = static_cast<QKeyEvent*>(event)->key();
        const int count = list_->topLevelItemCount();
        const int at =
            list_->currentItem() != nullptr ? list_->indexOfTopLevelItem(list_->currentItem()) : -1;
        if ((key == Qt::Key_Return || key == Qt::Key_Enter) && count > 0) {
            const int next = (at + 1) % count;
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
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app
