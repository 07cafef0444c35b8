#include "app/shell/actions.h"

namespace erdwerk::app {

QString stageName(Stage stage) {
    switch (stage) {
        case Stage::Ground:
            return QObject::tr("Ground");
        case Stage::Shape:
            return QObject::tr("Shape");
        case Stage::Route:
            return QObject::tr("Route");
        case Stage::Record:
            return QObject::tr("Record");
        case Stage::Field:
            break;
    }
    return QObject::tr("Field");
}

const Action* ActionList::find(const QString& id) const {
    for (const Action& a : actions_)
        if (a.id == id) return &a;
    return nullptr;
}

const Action* ActionList::byLetter(Stage stage, const QString& letter) const {
    for (const Action& a : actions_)
        if (a.stage == stage && a.key.toString().compare(letter, Qt::CaseInsensitive) == 0) return &a;
    return nullptr;
}

void ActionList::run(const QString& id) {
    const Action* action = find(id);
    if (action == nullptr) return;
    const QString reason = action->whyNot ? action->whyNot() : QString();
    if (!reason.isEmpty()) {
        Q_EMIT refused(reason);
        return;
    }
    action->run();
}

}  // namespace erdwerk::app
