#include "app/panels/rack.h"

#include <QKeyEvent>
#include <QToolButton>

#include "app/base/remembered.h"
#include "app/base/theme.h"

namespace erdwerk::app {

namespace {
constexpr const char* headingProperty = "heading";
}

Rack::Rack(ActionList& actions, Session& session, QWidget* parent) : QScrollArea(parent), actions_(actions) {
    setObjectName(QStringLiteral("rack"));
    setAccessibleName(tr("Rack"));
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    auto* content = new QWidget;
    content->setStyleSheet(
        QStringLiteral("QToolButton { border: 1px solid transparent; border-radius: 4px; padding: 0px 5px; "
                       "text-align: left; } QToolButton:hover { background: #E8E3D9; }"
                       "QToolButton:checked { background: #F3DFD6; font-weight: 600; }"
                       "QToolButton:focus { border-color: #B9502B; }"
                       "QToolButton[heading] { color: #5F6B74; font-size: 11px; }"));
    layout_ = new QVBoxLayout(content);
    layout_->setContentsMargins(4, 4, 4, 4);
    layout_->setSpacing(0);
    setWidget(content);
    // What is seldom needed is folded until somebody unfolds it.
    folded_ = remembered::foldedHeadings().value_or(
        QSet<QString>{stageName(Stage::Ground) + QLatin1Char('/') + tr("Own edits"),
                      stageName(Stage::Shape) + QLatin1Char('/') + tr("Lines from lines"),
                      stageName(Stage::Shape) + QLatin1Char('/') + tr("Arcs and fewer points"),
                      stageName(Stage::Shape) + QLatin1Char('/') + tr("Whole things")});
    connect(&session, &Session::documentChanged, this, &Rack::refresh);
    connect(&session.selection(), &Selection::changed, this, &Rack::refresh);
    connect(&session, &Session::resultsChanged, this, &Rack::refresh);
}

QString Rack::keyOf(const QString& heading) const {
    return stageName(stage_) + QLatin1Char('/') + heading;
}

bool Rack::isFolded(const QString& heading) const {
    return folded_.contains(keyOf(heading));
}

void Rack::setFolded(const QString& heading, bool folded) {
    if (folded)
        folded_.insert(keyOf(heading));
    else
        folded_.remove(keyOf(heading));
    remembered::setFoldedHeadings(folded_);
    refresh();
}

void Rack::setStage(Stage stage) {
    stage_ = stage;
    while (QLayoutItem* item = layout_->takeAt(0)) {
        delete item->widget();
        delete item;
    }
    QString section;
    for (const Action* action : actions_.onRack(stage)) {
        if (!action->section.isEmpty() && action->section != section) {
            section = action->section;
            addHeading(section);
        }
        addTool(*action);
    }
    layout_->addStretch(1);
    refresh();
}

void Rack::addHeading(const QString& heading) {
    auto* button = new QToolButton;
    button->setObjectName(QStringLiteral("heading:") + heading);
    button->setProperty(headingProperty, heading);
    button->setText(heading);
    button->setToolTip(tr("Folds or unfolds these tools"));
    button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    button->setIconSize(QSize(8, 8));
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    button->installEventFilter(this);
    connect(button, &QToolButton::clicked, this, [this, heading] { setFolded(heading, !isFolded(heading)); });
    layout_->addWidget(button);
}

void Rack::addTool(const Action& action) {
    auto* button = new QToolButton;
    button->setObjectName(action.id);
    button->setProperty("under", action.section);
    button->setText(action.text);
    button->setIcon(action.icon);
    button->setIconSize(QSize(19, 19));
    button->setToolButtonStyle(Qt::ToolButtonTextBesideIcon);
    button->setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Fixed);
    button->setCheckable(true);
    button->setFocusPolicy(Qt::StrongFocus);
    button->installEventFilter(this);
    connect(button, &QToolButton::clicked, this, [this, id = action.id] {
        actions_.run(id);
        refresh();
    });
    layout_->addWidget(button);
}

void Rack::setActive(const QString& actionId) {
    active_ = actionId;
    refresh();
}

bool Rack::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QScrollArea::eventFilter(watched, event);
    const int key = static_cast<QKeyEvent*>(event)->key();
    if (key == Qt::Key_Return || key == Qt::Key_Enter) {
        static_cast<QToolButton*>(watched)->click();
        return true;
    }
    if (key == Qt::Key_Down || key == Qt::Key_Up) {
        focusNextPrevChild(key == Qt::Key_Down);
        return true;
    }
    return QScrollArea::eventFilter(watched, event);
}

void Rack::refresh() {
    for (auto* button : findChildren<QToolButton*>()) {
        if (const QString heading = button->property(headingProperty).toString(); !heading.isEmpty()) {
            button->setArrowType(isFolded(heading) ? Qt::RightArrow : Qt::DownArrow);
            button->setAccessibleName(isFolded(heading) ? tr("%1, folded").arg(heading) : heading);
            continue;
        }
        const Action* a = actions_.find(button->objectName());
        if (a == nullptr) continue;
        const QString reason = a->whyNot ? a->whyNot() : QString();
        const QString key = a->key.isEmpty()
                                ? QString()
                                : QStringLiteral("  [%1]").arg(a->key.toString(QKeySequence::NativeText));
        button->setToolTip(reason.isEmpty() ? a->help + key : tr("Not now: %1").arg(reason));
        button->setEnabled(reason.isEmpty());
        button->setChecked(a->id == active_);
        button->setVisible(!isFolded(a->section));
    }
}

}  // namespace erdwerk::app

#include "moc_rack.cpp"
