#include "app/panels/rack.h"

#include <QLabel>
#include <QToolButton>

#include "app/base/theme.h"

namespace erdwerk::app {

Rack::Rack(ActionList& actions, Session& session, QWidget* parent) : QScrollArea(parent), actions_(actions) {
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* content = new QWidget;
    content->setStyleSheet(
        QStringLiteral("QToolButton { border: none; border-radius: 4px; padding: 2px 6px; text-align: left; "
                       "} QToolButton:hover { background: #E8E3D9; }"
                       "QToolButton:checked { background: #F3DFD6; font-weight: 600; } QToolButton:focus { "
                       "background: #E8E3D9; }"));
    layout_ = new QVBoxLayout(content);
    layout_->setContentsMargins(6, 6, 6, 6);
    layout_->setSpacing(1);
    setWidget(content);
    connect(&session, &Session::documentChanged, this, &Rack::refresh);
    connect(&session, &Session::selectionChanged, this, &Rack::refresh);
    connect(&session, &Session::resultsChanged, this, &Rack::refresh);
}

void Rack::setStage(Stage stage) {
    stage_ = stage;
    while (QLayoutItem* item = layout_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    auto* title = new QLabel(stageName(stage));
    title->setFont(theme::font(12, true));
    title->setStyleSheet(QStringLiteral("color: #5F6B74; padding: 2px 6px;"));
    layout_->addWidget(title);
    QString section;
    for (const Action* action : actions_.onRack(stage)) {
        const Action& a = *action;
        if (!a.section.isEmpty() && a.section != section) {
            section = a.section;
            auto* heading = new QLabel(section);
            heading->setFont(theme::font(11));
            heading->setStyleSheet(QStringLiteral("color: #6B7780; padding: 6px 6px 1px 6px;"));
            layout_->addWidget(heading);
        }
        auto* button = new QToolButton;
        button->setObjectName(a.id);
        button->setText(a.text);
        button->setIcon(a.icon);
        button->setIconSize(QSize(20, 20));
        button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
        button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
        button->setCheckable(true);
        connect(button, &QToolButton::clicked, this, [this, id = a.id] {
            actions_.run(id);
            refresh();
        });
        layout_->addWidget(button);
    }
    layout_->addStretch(1);
    refresh();
}

void Rack::setActive(const QString& actionId) {
    active_ = actionId;
    refresh();
}

void Rack::refresh() {
    for (auto* button : findChildren<QToolButton*>()) {
        const Action* a = actions_.find(button->objectName());
        if (a == nullptr) continue;
        const QString reason = a->whyNot ? a->whyNot() : QString();
        const QString key = a->key.isEmpty()
                                ? QString()
                                : QStringLiteral("  [%1]").arg(a->key.toString(QKeySequence::NativeText));
        button->setToolTip(reason.isEmpty() ? a->help + key : tr("Not now: %1").arg(reason));
        button->setEnabled(reason.isEmpty());
        button->setChecked(a->id == active_);
    }
}

}  // namespace erdwerk::app
