#include "app/base/actions.h"

#include "app/base/remembered.h"

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

void ActionList::placeOnRack(const QString& id, Stage stage, const QString& section) {
    for (Action& a : actions_) {
        if (a.id != id) continue;
        a.stage = stage;
        a.section = section;
        rack_.push_back(id);
    }
}

void ActionList::placeOnEveryRack(const QString& id, const QString& section) {
    for (Action& a : actions_)
        if (a.id == id) a.section = section;
    everyRack_.push_back(id);
}

void ActionList::nameAlso(const QString& id, const QString& words) {
    for (Action& a : actions_)
        if (a.id == id) a.words = words;
}

void ActionList::offerFor(const QString& id, std::function<bool(const objects::Object&)> suits) {
    for (Action& a : actions_)
        if (a.id == id) a.suits = suits;
}

std::vector<const Action*> ActionList::onRack(Stage stage) const {
    std::vector<const Action*> out;
    for (const QString& id : rack_)
        if (const Action* a = find(id); a != nullptr && a->stage == stage) out.push_back(a);
    for (const QString& id : everyRack_) out.push_back(find(id));
    return out;
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
    remembered::addAction(id);
    action->run();
}

}  // namespace erdwerk::app

#include "moc_actions.cpp"
