#include "app/window/keeping_bar.h"

#include <QHBoxLayout>
#include <QTime>
#include "app/base/open_project.h"

#include "core/format/keeper.h"

namespace erdwerk::app {

KeepingBar::KeepingBar(Session& session, QWidget* parent) : QFrame(parent), session_(session) {
    setObjectName(QStringLiteral("keepingBar"));
    setStyleSheet(QStringLiteral(
        "#keepingBar { background: #FBEFD9; border-bottom: 1px solid #C98F1E; } "
        "#keepingBar QLabel { color: #22303A; } #keepingBar QPushButton { padding: 2px 10px; }"));
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(12, 4, 12, 4);
    text_ = new QLabel;
    text_->setObjectName(QStringLiteral("keepingText"));
    text_->setWordWrap(true);
    text_->setAccessibleName(tr("Whether edits are kept"));
    const auto button = [&](const QString& label, const QString& name, auto signal) {
        auto* b = new QPushButton(label);
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, signal);
        return b;
    };
    takeOver_ = button(tr("Take over"), QStringLiteral("takeOver"), &KeepingBar::takeOverPressed);
    copy_ = button(tr("Work on a copy"), QStringLiteral("workOnCopy"), &KeepingBar::copyPressed);
    save_ = button(tr("Save elsewhere…"), QStringLiteral("saveElsewhere"), &KeepingBar::saveElsewherePressed);
    row->addWidget(text_, 1);
    row->addWidget(takeOver_);
    row->addWidget(copy_);
    row->addWidget(save_);
    connect(&session_.project(), &OpenProject::keepingChanged, this, &KeepingBar::refresh);
    refresh();
}

void KeepingBar::refresh() {
    using State = format::Keeper::State;
    const auto& keeper = session_.project().keeper();
    const State state = keeper.state();
    const QString reason = QString::fromStdString(keeper.reason());
    const bool shown = state == State::NotKept || state == State::ReadOnly;
    if (!shown)
        since_.clear();
    else if (since_.isEmpty())
        since_ = QTime::currentTime().toString(QStringLiteral("hh:mm"));
    if (state == State::NotKept)
        text_->setText(tr("⚠ Since %1 edits are only in memory. %2").arg(since_, reason));
    else if (keeper.canTakeOver())
        text_->setText(tr("⚠ Opened to look at only. Whoever had it is gone now."));
    else
        text_->setText(tr("⚠ Opened to look at only. The project %1.").arg(reason));
    takeOver_->setVisible(state == State::ReadOnly && keeper.canTakeOver());
    copy_->setVisible(state == State::ReadOnly);
    setVisible(shown);
}

}  // namespace erdwerk::app

#include "moc_keeping_bar.cpp"
