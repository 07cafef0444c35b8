#include "app/window/window_menus.h"

#include <QHash>
#include <QMenu>
#include <QMenuBar>

#include "app/base/actions.h"
#include "app/window/command_set.h"

namespace erdwerk::app {

void buildMenus(QMenuBar& bar, ActionList& actions) {
    QHash<QString, QMenu*> menus;
    // In the order of the job, whichever has its first action earlier.
    QStringList order{CommandSet::tr("File"), CommandSet::tr("Edit"), CommandSet::tr("View")};
    for (const Stage stage : {Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record})
        order << stageName(stage);
    order << CommandSet::tr("Sheet") << CommandSet::tr("Help");
    // Each with a letter of its own for Alt.
    QString taken;
    const auto withLetter = [&taken](const QString& name) {
        for (qsizetype i = 0; i < name.size(); ++i) {
            if (taken.contains(name[i], Qt::CaseInsensitive)) continue;
            taken += name[i];
            return name.left(i) + QLatin1Char('&') + name.mid(i);
        }
        return name;
    };
    for (const QString& name : order) menus[name] = bar.addMenu(withLetter(name));
    for (const Action& a : actions.all()) {
        if (!menus.contains(a.menu)) menus[a.menu] = bar.addMenu(withLetter(a.menu));
        auto* item = menus[a.menu]->addAction(a.text);
        item->setData(a.id);
        item->setStatusTip(a.help);
        // Single letters act in the plan only; they are shown, not bound.
        const bool letter = a.key.count() == 1 && a.key[0].keyboardModifiers() == Qt::NoModifier;
        if (letter)
            item->setText(a.text + QStringLiteral("\t") + a.key.toString());
        else
            item->setShortcut(a.key);
        QObject::connect(item, &QAction::triggered, &actions, [&actions, id = a.id] { actions.run(id); });
    }
    // What cannot run now is grey in the menu as well; a key that is pressed says why.
    for (QMenu* menu : menus) {
        QObject::connect(menu, &QMenu::aboutToShow, &actions, [&actions, menu] {
            for (QAction* item : menu->actions()) {
                const Action* a = actions.find(item->data().toString());
                item->setEnabled(a == nullptr || !a->whyNot || a->whyNot().isEmpty());
            }
        });
        QObject::connect(menu, &QMenu::aboutToHide, &actions, [menu] {
            for (QAction* item : menu->actions()) item->setEnabled(true);
        });
    }
}

}  // namespace erdwerk::app
