#include "app/bench/findings_page.h"

#include <QHBoxLayout>
#include <QHeaderView>
#include <QKeyEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/shell/theme.h"

namespace erdwerk::app {

FindingsPage::FindingsPage(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(0, 0, 0, 0);
    layout->setSpacing(0);
    summary_ = new QLabel;
    summary_->setContentsMargins(10, 5, 10, 5);
    layout->addWidget(summary_);
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
    const std::size_t fixed = highest_ - findings.size();
    QString text = findings.empty() ? tr("No findings: nothing in the project contradicts itself.")
                                    : (findings.size() == 1 ? tr("1 finding left")
                                                            : tr("%1 findings left").arg(findings.size()));
    if (fixed > 0) text += tr(", %1 fixed since the last look").arg(fixed);
    if (!findings.empty()) text += tr(" · Enter goes to the next · 1, 2, 3 apply its fixes");
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
        item->setToolTip(1, QString::fromStdString(
                                f.text + "  at  " +
                                formatPosition(f.at.x, f.at.y, session_.document().settings().display)));
        auto* buttons = new QWidget;
        auto* row2 = new QHBoxLayout(buttons);
        row2->setContentsMargins(2, 1, 2, 1);
        row2->setSpacing(4);
        for (std::size_t k = 0; k < f.fixes.size(); ++k) {
            auto* button = new QPushButton(QString::fromStdString(f.fixes[k].label));
            button->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
            button->setFocusPolicy(Qt::NoFocus);
            connect(button, &QPushButton::clicked, this, [this, i, k] { apply(static_cast<int>(i), k); });
            row2->addWidget(button);
        }
        row2->addStretch(1);
        list_->setItemWidget(item, 2, buttons);
        item->setSizeHint(0, QSize(0, 28));
    }
    if (row >= 0 && list_->topLevelItemCount() > 0)
        list_->setCurrentItem(list_->topLevelItem(std::min(row, list_->topLevelItemCount() - 1)));
}

void FindingsPage::go(int index) {
    if (index < 0 || static_cast<std::size_t>(index) >= shown_->findings.size()) return;
    const auto& f = shown_->findings[static_cast<std::size_t>(index)];
    std::vector<Ref> refs;
    for (const ObjectId id : f.objects)
        if (session_.document().get<document::Points>(id) == nullptr) refs.push_back({id, std::nullopt});
    session_.select(std::move(refs));
    if (f.kind != "no-surface") Q_EMIT session_.goToPlace(f.at);
    session_.setHover(
        Hover{f.at, std::nullopt, f.heights.empty() ? std::nullopt : std::optional(f.heights.front())});
}

void FindingsPage::apply(int finding, std::size_t fix) {
    const auto snapshot = shown_;
    if (finding < 0 || static_cast<std::size_t>(finding) >= snapshot->findings.size()) return;
    const auto& f = snapshot->findings[static_cast<std::size_t>(finding)];
    if (fix >= f.fixes.size()) return;
    session_.apply(QString::fromStdString(f.fixes[fix].label), f.fixes[fix].apply(session_.document()));
}

bool FindingsPage::eventFilter(QObject* watched, QEvent* event) {
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
        if (key >= Qt::Key_1 && key <= Qt::Key_9 && at >= 0) {
            apply(at, static_cast<std::size_t>(key - Qt::Key_1));
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

}  // namespace erdwerk::app
